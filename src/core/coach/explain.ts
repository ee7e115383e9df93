/** Puts a planned step into words: look for, hold, check, hints. Every fact is read off the states. */
import type { Scheme } from '../puzzle/colours'
import { directionOfLetter, opposite, turnDirection, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, rotationAbout, type Rotation } from '../rotation'
import type { Condition, Stage } from '../schools/school'
import { looksHome, placeOf, rotateState, start, type State } from '../state'
import type { Aim } from './aim'
import { bars, directions, type Reading } from './reading'
import { frameMeeting, piecesOfSide, sideOf } from './goal'
import { halfwayOf } from './halfway'
import { swapWords } from './boxWords'
import { blockWords } from './blockWords'
import { commutatorWords, ownerOf } from './commutatorWords'
import { joinWords, remedyWords } from './joinWords'
import {
  bringWords,
  evenWords,
  goesTo,
  holdBy,
  holdByMarks,
  knownWords,
  pieceAt,
  seriesWords,
  shows,
  spinWords,
  takenOut,
} from './pieceWords'
import { asClaims, type RouteStep, type StepDraft } from './route'
import {
  alignInSolid,
  caseInSolid,
  countInSolid,
  insertInSolid,
  startInSolid,
  takeOutInSolid,
  twistInSolid,
} from './solidWords'
import { anchorsOf } from '../analysis/anchors'
import { hasColouredSides } from '../analysis/sides'
import { asSaid, type Claim, type Said } from '../claims/claim'
import { markBeside, markClaim, sideName, whereNow, who } from '../analysis/who'
import {
  baseKind,
  capital,
  colourOf,
  heldWords,
  inWords,
  listed,
  lookWords,
  pieceColours,
  pieceWords,
  placeWords,
  plural,
  sideAt,
  sidesShown,
  times,
  whereIs,
} from '../phrases'
import { after, held, type PlannedStep } from './workpiece'

export interface StepToExplain {
  readonly puzzle: Puzzle
  readonly stage: Stage
  readonly scheme: Scheme
  readonly base: Direction
  readonly steps: readonly PlannedStep[]
  readonly nth: number
  readonly id: string
}

interface Scene extends StepToExplain {
  readonly step: PlannedStep
  /** As the puzzle is held when the card is read. */
  readonly before: State
  /** After the leading turns of the whole puzzle. */
  readonly state: State
  readonly frame: Rotation
  /** After the last turn. */
  readonly end: State
  readonly endFrame: Rotation
}

type Words = Pick<StepDraft, 'lookFor' | 'check' | 'hints'> &
  Partial<
    Pick<
      StepDraft,
      | 'ifNot'
      | 'note'
      | 'hold'
      | 'lines'
      | 'runs'
      | 'algorithm'
      | 'pieces'
      | 'places'
      | 'others'
      | 'caseIndex'
    >
  >

export function explainStep(given: StepToExplain): RouteStep {
  const { puzzle, steps, nth, id } = given
  const step = steps[nth]
  const turns = step.turns.map(({ turn }) => turn)
  const leading = step.turns.findIndex(({ role }) => role !== 'hold')
  const opening = turns.slice(0, leading < 0 ? turns.length : leading)
  const opened = after(puzzle, step.before, step.frame, opening)
  const ended = after(puzzle, step.before, step.frame, turns)
  const written = step.turns.map(({ turn, role, run }) => ({
    name: turn.name,
    role,
    ...(run === undefined ? {} : { run }),
  }))
  // The turns with which its stage was entered come first.
  if (step.aim.kind === 'given') {
    const by = { kind: 'holdBy', turns: opening.map(({ name }) => name) } as const
    const hold = step.aim.step.hold.map((claim) => (claim.kind === 'holdBy' ? by : claim))
    return { ...step.aim.step, id, hold, turns: written, frame: step.frame }
  }
  const scene: Scene = {
    ...given,
    step,
    before: step.before,
    state: opened.state,
    frame: opened.frame,
    end: ended.state,
    endFrame: ended.frame,
  }
  const words = wordsFor(scene)
  const lit = (words.pieces ?? []).map((name) => puzzle.pieces.findIndex((p) => p.id === name))
  return asClaims({
    id,
    kind: step.aim.kind,
    hold: holdWords(scene),
    algorithm: [],
    pieces: [],
    places: [],
    others: [],
    ...words,
    halfway: halfwayOf(puzzle, step.before, step.frame, turns, lit),
    turns: written,
    frame: step.frame,
  })
}

/** `{base}`, `{last}`, `{circle}` and `{cap}` in a school's sentences. */
export function aimWords(
  puzzle: Puzzle,
  scheme: Scheme,
  base: Direction,
  { aim, aimInSolid, technique }: Pick<Stage, 'aim' | 'aimInSolid' | 'technique'>,
): string {
  const owner = ownerOf(puzzle, scheme, { technique })
  const text = hasColouredSides(puzzle) ? aim : (aimInSolid ?? aim)
  return text
    .replaceAll('{base}', () => sideName(puzzle, scheme, base))
    .replaceAll('{last}', () => sideName(puzzle, scheme, opposite(base)))
    .replaceAll(/\{circle\}|\{cap\}/g, () => owner?.name ?? 'next')
}

function wordsFor(scene: Scene): Words {
  const { aim } = scene.step
  switch (aim.kind) {
    case 'start':
      return startWords(scene, aim)
    case 'insert':
      return insertWords(scene, aim)
    case 'takeOut':
      return takeOutWords(scene, aim)
    case 'count':
      return countWords(scene, aim)
    case 'twist':
      return twistWords(scene, aim)
    case 'given':
      return aim.step
    case 'spin':
      return spinWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'bring':
      return bringWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'known':
      return knownWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'series':
      return seriesWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'swap':
      return swapWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'join':
      return joinWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'commutator':
      return commutatorWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'blocks':
      return blockWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'remedy':
      return remedyWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'even':
      return evenWords({ ...scene, isFirst: scene.nth === 0 }, aim)
    case 'align':
      return alignWords(scene)
    case 'case':
      return caseWords(scene, aim)
  }
}

/**
 * Where the first colour is, and a second one where some finished piece shows it there; else a piece and
 * its place.
 */
function holdWords(scene: Scene): Said {
  const { puzzle, scheme, base, state, frame } = scene
  if (!hasColouredSides(puzzle)) return holdByMarks(scene)
  const side = turnDirection(frame, base)
  const first: Said = [...holdBy(scene), { kind: 'sideHeld', side: base.name, at: side.name }]
  const second = directionOfLetter(side.letter === 'U' || side.letter === 'D' ? 'F' : 'U')
  const isSeen = piecesOfSide(puzzle, sideAt(frame, second)).some((p) =>
    looksHome(puzzle, p, multiply(INVERSE[frame], state[p])),
  )
  if (isSeen && isWholeStage(scene))
    return [...first, { kind: 'sideHeld', side: sideAt(frame, second).name, at: second.name }]
  const mark = markBeside(puzzle, scheme, state, frame, side)
  return mark ? [...first, markClaim(puzzle, mark)] : first
}

/** Whether pieces of the first layer are home, so that its sides tell which way it is held. */
function isWholeStage({ puzzle, stage, base, step, state, frame }: Scene): boolean {
  if (step.aim.kind === 'insert' || step.aim.kind === 'start')
    return stage.goal.some(({ must }) => must === 'home')
  return piecesOfSide(puzzle, base).every((p) => state[p] === frame)
}

const ids = (puzzle: Puzzle, pieces: readonly number[]) => pieces.map((p) => puzzle.pieces[p].id)

const placeAt = ({ puzzle }: Scene, state: State, piece: number): string =>
  placeWords(sidesShown(puzzle, piece, state[piece]))

function startWords(scene: Scene, aim: Extract<Aim, { kind: 'start' }>): Words {
  if (!hasColouredSides(scene.puzzle)) return startInSolid(scene, aim)
  const { puzzle, scheme, base, stage, state } = scene
  const side = held(stage).base
  const baseColour = colourOf(puzzle, scheme, base)
  const others = aim.already.filter((p) => p !== aim.piece)
  const piece = pieceWords(puzzle, scheme, aim.piece, base)
  const along =
    others.length > 0
      ? ` It is right together with ${plural(others.length, 'other')}: ${others.map((p) => pieceColours(puzzle, scheme, p, base)).join('; ')}.`
      : ''
  return {
    lookFor: `${piece}. Held so, it is ${whereIs(puzzle, state, aim.piece)}; ${lookWords(puzzle, scheme, state, aim.piece, base)}. It counts as home; the rest is built around it.${along}`,
    check: `${baseColour} of that ${puzzle.pieces[aim.piece].kind} is ${heldWords(side)}, and it is ${whereIs(puzzle, state, aim.piece)}.`,
    ifNot:
      'If it is elsewhere, the puzzle was turned another way. Turn it back and take the hold again.',
    note: faceIsNoLayer(scene),
    hints: {
      nudge: `Choose a first ${puzzle.pieces[aim.piece].kind} with ${baseColour}.`,
      pointer: `Begin with ${piece}.`,
    },
    pieces: ids(puzzle, aim.already),
    places: ids(puzzle, [placeOf(puzzle, state, aim.piece)]),
  }
}

/** A face of one colour whose sides do not match is no layer yet; where only faces count it is. */
function faceIsNoLayer({ puzzle, scheme, base, stage, before }: Scene): string | undefined {
  if (!stage.goal.some(({ layer, must }) => layer === 'base' && must === 'home')) return undefined
  const face: readonly Condition[] = [{ layer: 'base', must: 'faced' }]
  if (frameMeeting(puzzle, face, base, before) === undefined) return undefined
  return `The ${colourOf(puzzle, scheme, base)} face is of one colour, but its side colours do not match, so it is no layer yet.`
}

function insertWords(scene: Scene, aim: Extract<Aim, { kind: 'insert' }>): Words {
  if (!hasColouredSides(scene.puzzle)) return insertInSolid(scene, aim)
  const { puzzle, scheme, base, end, state, frame } = scene
  const piece = pieceWords(puzzle, scheme, aim.piece, base)
  const target = placeAt(scene, end, aim.piece)
  const kind = puzzle.pieces[aim.piece].kind
  const note = aim.runs > 0 ? triggerNote(scene, aim) : undefined
  return {
    lookFor: [
      pieceAt(puzzle, frame, state, aim.piece),
      goesTo(scene, aim.piece),
      showsFirst(scene, aim.piece),
    ],
    check: insertCheck(scene, aim),
    note:
      [note, wrongButRightColour(scene, aim, state, frame)].filter(Boolean).join(' ') || undefined,
    hints: {
      nudge: `Find the next ${kind} with ${colourOf(puzzle, scheme, base)}.`,
      pointer: `${capital(piece)} goes to the ${target}.`,
    },
    algorithm: aim.trigger,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, end, aim.piece)]),
    others: aim.others.map(({ piece: other, turns }) => ({
      piece: puzzle.pieces[other].id,
      says: asSaid(
        `${capital(pieceWords(puzzle, scheme, other, base))}: ${turns} ${turns === 1 ? 'turn' : 'turns'}.`,
      ),
    })),
  }
}

/** Which way its faces look, that of the base before the others. */
function showsFirst(scene: Scene, piece: number): Claim {
  const { puzzle, base } = scene
  const told = shows(scene, piece)
  if (told.kind !== 'shows') return told
  const first = puzzle.definition.faces[base.name]
  const isFirst = ({ colour }: { colour: string }) => colour === first
  return {
    ...told,
    looks: [...told.looks.filter(isFirst), ...told.looks.filter((look) => !isFirst(look))],
  }
}

/** White is up, and where a neighbour is home already their side colours meet. */
function insertCheck(scene: Scene, aim: Extract<Aim, { kind: 'insert' }>): string {
  const { puzzle, scheme, base, stage, end, endFrame } = scene
  const first = `${colourOf(puzzle, scheme, base)} is ${heldWords(held(stage).base)}`
  if (aim.must === 'faced')
    return `${first} on ${plural(facedCount(scene), puzzle.pieces[aim.piece].kind)}; the sides do not matter.`
  const place = whereNow(puzzle, endFrame, aim.piece, end[aim.piece])
  if (anchorsOf(puzzle).length > 0 && place !== undefined)
    return `${who(puzzle, scheme, aim.piece)} is ${place}. Its ${first}.`
  const meeting = sidesShown(puzzle, aim.piece, 0)
    .filter((side) => side !== base)
    .filter((side) =>
      piecesOfSide(puzzle, base).some(
        (p) => p !== aim.piece && end[p] === endFrame && sidesShown(puzzle, p, 0).includes(side),
      ),
    )
    .map((side) => {
      const colour = colourOf(puzzle, scheme, side)
      return `${colour} meets ${colour} ${turnDirection(endFrame, side).at}`
    })
  return meeting.length > 0 ? `${first}, and ${listed(meeting)}.` : `${first}.`
}

function facedCount({ puzzle, base, stage, end }: Scene): number {
  const side = held(stage).base
  return piecesOfSide(puzzle, base).filter((p) => turnDirection(end[p], base) === side).length
}

function triggerNote(scene: Scene, aim: Extract<Aim, { kind: 'insert' }>): string {
  const { puzzle, state, frame } = scene
  const home = puzzle.place[24 * aim.piece + frame]
  const inPlace = placeOf(puzzle, state, aim.piece) === home
  const counts = inPlace ? '2 or 4 runs of the trigger' : '1, 3 or 5 runs of the trigger'
  const reason = inPlace ? 'It is in its slot but twisted' : 'It comes from the other layer'
  const drop = aim.lastDropped
    ? ` The very last ${aim.trigger[aim.trigger.length - 1]} is left out: it would turn the ${opposite(held(scene.stage).base).adjective} layer only.`
    : ''
  return `${reason}, so only ${counts} can do it: here ${aim.runs}.${drop}`
}

/** The colour is right but the piece is not: the slot's present piece deceives. */
function wrongButRightColour(
  { puzzle, scheme, base, stage }: Scene,
  aim: Extract<Aim, { kind: 'insert' }>,
  state: State,
  frame: Rotation,
): string | undefined {
  if (aim.must !== 'home') return undefined
  const slot = puzzle.place[24 * aim.piece + frame]
  const there = state.findIndex((_, p) => placeOf(puzzle, state, p) === slot)
  if (there === aim.piece || !sidesShown(puzzle, there, 0).includes(base)) return undefined
  if (turnDirection(state[there], base) !== held(stage).base) return undefined
  return `The slot shows ${colourOf(puzzle, scheme, base)} already, but with the wrong ${puzzle.pieces[there].kind}: its sides do not match.`
}

function takeOutWords(scene: Scene, aim: Extract<Aim, { kind: 'takeOut' }>): Words {
  if (!hasColouredSides(scene.puzzle)) return takeOutInSolid(scene, aim)
  const { puzzle, scheme, base, stage, state, frame } = scene
  const piece = pieceWords(puzzle, scheme, aim.piece, base)
  const kind = puzzle.pieces[aim.piece].kind
  const other = held(stage).last
  return {
    lookFor: [
      pieceAt(puzzle, frame, state, aim.piece),
      takenOut(puzzle, aim.piece),
      showsFirst(scene, aim.piece),
    ],
    check: `it is in the ${other.adjective} layer now, and what was right is still right.`,
    note: `No ${kind} with ${colourOf(puzzle, scheme, base)} is left in the other layer, so take a wrong one out.`,
    hints: {
      nudge: `A ${kind} of the layer is in a wrong slot. Get it out.`,
      pointer: `Take out ${piece}.`,
    },
    algorithm: aim.trigger,
    runs: { times: 1, before: 0, total: 1 },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

/** Where the other layer is, as seen from one that lies there. */
const NEXT_TO: Readonly<Record<Direction['name'], string>> = {
  up: 'below',
  down: 'above',
  front: 'behind',
  back: 'in front of',
  right: 'to the left of',
  left: 'to the right of',
}

function countWords(scene: Scene, aim: Extract<Aim, { kind: 'count' }>): Words {
  if (!hasColouredSides(scene.puzzle)) return countInSolid(scene, aim)
  const { puzzle, scheme, stage, base, end } = scene
  const last = held(stage).last
  const lastPieces = piecesOfSide(puzzle, sideOf('last', base))
  const kind = puzzle.pieces[lastPieces[0]].kind
  const counted = `As it stands, and after one, two and three quarter turns of the ${last.adjective} layer (clockwise, seen from outside), ${listed(aim.counts.map(String))} ${kind}s are placed.`
  const rule = `A ${kind} is placed if, apart from ${colourOf(puzzle, scheme, sideOf('last', base))}, it has the same two colours as the ${kind} ${NEXT_TO[last.name]} it, whichever way they look.`
  const position =
    aim.counts.filter((count) => count === 1).length > 1 ? 'a position' : 'the position'
  const common = {
    ifNot:
      aim.action === 'align'
        ? `Turn the ${last.adjective} layer on and count again.`
        : 'Take the turns back, the last first, and count again.',
    algorithm: aim.action === 'align' ? [] : aim.cycle,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
  }
  if (aim.action === 'align')
    return {
      ...common,
      lookFor: `the position in which all ${inWords(lastPieces.length)} are placed. ${rule}`,
      check: `all ${inWords(lastPieces.length)} are placed.`,
      note: counted,
      hints: {
        nudge: `Turn the ${last.adjective} layer and count the placed ${kind}s.`,
        pointer: `Only a turn of the ${last.adjective} layer is missing.`,
      },
      pieces: ids(puzzle, lastPieces),
    }
  if (aim.action === 'cycleAnyway')
    return {
      ...common,
      lookFor: `how many ${kind}s are placed in each position. ${rule}`,
      check: 'one position now shows exactly one placed.',
      note: `${counted} No position shows exactly one, so run the cycle once from anywhere and count again: a second pass follows.`,
      hints: {
        nudge: `Turn the ${last.adjective} layer and count the placed ${kind}s.`,
        pointer:
          'There is no position with exactly one placed. Run the cycle once from where you are.',
      },
      pieces: ids(puzzle, lastPieces),
    }
  const piece = aim.piece as number
  const words = pieceWords(puzzle, scheme, piece, sideOf('last', base))
  return {
    ...common,
    lookFor: `${position} in which exactly one ${kind} is placed: ${words}. ${rule}`,
    check: `all ${inWords(lastPieces.length)} are placed; twists do not matter yet.`,
    note: `${counted} Hold the placed one at the ${placeAt(scene, end, piece)}; the cycle moves the other three, ${times(aim.runs)}.`,
    hints: {
      nudge: `Turn the ${last.adjective} layer until exactly one ${kind} is placed.`,
      pointer: `${capital(words)} is placed then. Bring it to the ${placeAt(scene, end, piece)} before the cycle.`,
    },
    pieces: ids(puzzle, [piece]),
    places: ids(puzzle, [placeOf(puzzle, end, piece)]),
  }
}

function twistWords(scene: Scene, aim: Extract<Aim, { kind: 'twist' }>): Words {
  const { puzzle, scheme, base, stage, state } = scene
  const side = sideOf('last', base)
  const { last } = held(stage)
  const kind = baseKind(puzzle.pieces[aim.piece].kind)
  const sum = aim.runsBefore + aim.runs
  const left =
    aim.left > 0
      ? `${capital(plural(aim.left, kind))} still to twist after this.`
      : 'This is the last one.'
  const round = runsUntilWhole(scene, aim.trigger)
  const wholeAt = Math.ceil(sum / round) * round
  const runs =
    aim.runs === 1
      ? `Run ${sum}`
      : aim.runs === 2
        ? `Runs ${sum - 1} and ${sum}`
        : `Runs ${aim.runsBefore + 1} to ${sum}`
  const whole =
    sum === wholeAt
      ? `With run ${sum} the first layer is whole again.`
      : `${runs} of ${aim.runsTotal}: the first layer looks ruined until run ${wholeAt}; it all comes back.`
  const hold =
    scene.step.turns[0]?.role === 'hold'
      ? 'once you hold it so, never turn the whole puzzle until the last one is twisted'
      : 'never turn the whole puzzle now'
  const early = scene.step.endsEarly
    ? ' Here everything is home one turn before the end; what is left out would only turn both layers alike.'
    : ''
  const note = `${whole} Always finish the four turns, and ${hold}. ${left}${early}`
  if (!hasColouredSides(puzzle)) return twistInSolid(scene, aim, note)
  const lastColour = colourOf(puzzle, scheme, side)
  const spot = spotOf(scene)
  return {
    lookFor: `${pieceWords(puzzle, scheme, aim.piece, side)}. It is ${whereIs(puzzle, state, aim.piece)}; ${lookWords(puzzle, scheme, state, aim.piece, side)}.`,
    check: `${lastColour} is ${heldWords(last)} at the ${placeWords(spot)}.`,
    ifNot:
      'Finish the run that you are in. If it still looks elsewhere, take back the runs of this step and count them anew.',
    note,
    hints: {
      nudge: `Find the next ${kind} whose ${lastColour} does not look ${last.toward}. It is twisted at the ${placeWords(spot)}.`,
      pointer: `${capital(pieceWords(puzzle, scheme, aim.piece, side))}: repeat the trigger until its ${lastColour} looks ${last.toward}.`,
    },
    algorithm: aim.trigger,
    runs: { times: aim.runs, before: aim.runsBefore, total: aim.runsTotal },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, aim.piece)]),
  }
}

/** After so many runs of a trigger whatever it moves outside the last layer is back, by doing it. */
function runsUntilWhole({ puzzle, stage }: Scene, trigger: readonly string[]): number {
  const turns = trigger.flatMap((name) => puzzle.turnByName.get(name) ?? [])
  const side = piecesOfSide(puzzle, held(stage).last)
  const others = puzzle.pieces.flatMap((_, p) => (side.includes(p) ? [] : [p]))
  let state = start(puzzle)
  for (let runs = 1; ; runs++) {
    state = after(puzzle, state, IDENTITY, turns).state
    if (others.every((p) => state[p] === IDENTITY)) return runs
  }
}

/** Where the twisted piece is at the end of its step: the working spot. */
function spotOf({ puzzle, end, step }: Scene): Direction[] {
  const { aim } = step
  return aim.kind === 'twist' ? sidesShown(puzzle, aim.piece, end[aim.piece]) : []
}

function alignWords(scene: Scene): Words {
  const { puzzle, stage, base } = scene
  const { last } = held(stage)
  if (!hasColouredSides(puzzle)) return alignInSolid(scene)
  return {
    lookFor: 'the side colours of the two layers: only a turn is missing.',
    check: 'every side shows one colour.',
    ifNot: `Turn the ${last.adjective} layer on until its sides match.`,
    hints: {
      nudge: 'Only a turn of one layer is missing.',
      pointer: `Turn the ${last.adjective} layer until its sides match.`,
    },
    pieces: ids(puzzle, piecesOfSide(puzzle, sideOf('last', base))),
  }
}

function caseWords(scene: Scene, aim: Extract<Aim, { kind: 'case' }>): Words {
  if (!hasColouredSides(scene.puzzle)) return caseInSolid(scene, aim)
  const { puzzle, scheme, stage, base } = scene
  const lastColour = colourOf(puzzle, scheme, sideOf('last', base))
  const [opened, prepared] = readingsOf(scene, aim)
  const isDirections = aim.reading === 'directions'
  const what = (detail: string) => `${isDirections ? `${lastColour} ` : ''}${detail}`
  const prepare = scene.step.turns.filter(({ role }) => role === 'prepare')
  const detail =
    opened.detail === prepared.detail || prepare.length === 0
      ? `Then ${what(opened.detail)}`
      : `Then ${what(opened.detail)}; after ${listed(prepare.map(({ turn }) => turn.name))} ${what(prepared.detail)}`
  return {
    lookFor: isDirections
      ? `where the ${lastColour} looks on the four of the ${held(stage).last.adjective} layer: ${opened.summary}.`
      : `bars, two equal side colours side by side in one layer: ${opened.summary}.`,
    hold: [...holdWords(scene), ...asSaid(`${detail}.`)],
    check: isDirections
      ? `the whole ${held(stage).last.adjective} face is ${lastColour}.`
      : 'all sides match, if need be after a turn of one layer.',
    hints: {
      nudge: isDirections
        ? `Look at the directions of ${lastColour}: one of ${inWords(aim.caseCount)} cases.`
        : `Count the bars of each layer: one of ${inWords(aim.caseCount)} cases.`,
      pointer: `It is case ${aim.caseIndex + 1}: ${opened.summary}.`,
    },
    note: `Case ${aim.caseIndex + 1} of ${aim.caseCount}. ${otherHoldsWords(scene, aim)}`,
    algorithm: aim.algorithm,
    pieces: ids(puzzle, piecesOfSide(puzzle, sideOf('last', base))),
    caseIndex: aim.caseIndex,
  }
}

/** What comes of it if the puzzle is held a quarter, half or three quarters round, by doing it. */
function otherHoldsWords(scene: Scene, { algorithm }: Extract<Aim, { kind: 'case' }>): string {
  const { puzzle, stage, base, step } = scene
  const { last } = held(stage)
  const turns = step.turns.map(({ turn }) => turn)
  const leading = turns.slice(0, turns.length - algorithm.length)
  const ready = after(puzzle, step.before, step.frame, leading)
  const ends = puzzle.turns.filter(
    ({ grip, whole }) => !whole && puzzle.grips[grip].name === last.letter,
  )
  const works = [90, 180, 270].filter((degrees) => {
    const round = rotationAbout(last.vector, degrees)
    const turned = rotateState(ready.state, round)
    const done = after(puzzle, turned, multiply(round, ready.frame), turns.slice(leading.length))
    return [[], ...ends.map((turn) => [turn])].some((end) => {
      const { state } = after(puzzle, done.state, done.frame, end)
      return frameMeeting(puzzle, stage.goal, base, state) !== undefined
    })
  })
  if (works.length === 0) return 'Held a quarter turn wrong, the algorithm fails.'
  if (works.length === 3) return 'It works whichever of the four sides is in front.'
  return works.includes(180)
    ? 'Held half round it works too; held a quarter turn wrong it fails.'
    : 'Held otherwise it may fail.'
}

/** As the case shows once its hold is taken, and just before the algorithm. */
function readingsOf(scene: Scene, aim: Extract<Aim, { kind: 'case' }>): [Reading, Reading] {
  const { puzzle, stage, base, step } = scene
  const leading = step.turns.slice(0, step.turns.length - aim.algorithm.length)
  const ready = after(
    puzzle,
    step.before,
    step.frame,
    leading.map(({ turn }) => turn),
  )
  const read = (state: State) =>
    aim.reading === 'directions'
      ? directions(puzzle, state, sideOf('last', base), held(stage).last)
      : bars(puzzle, state, held(stage).last)
  return [read(scene.state), read(ready.state)]
}
