/** The words of steps that work on pieces by selection: spin, bring, known. All read off the states. */
import { anchorsOf } from '../analysis/anchors'
import { hasColouredSides, turnSide } from '../analysis/sides'
import { asSaid, type Claim, type Said } from '../claims/claim'
import { lies } from '../claims/isTrue'
import {
  homeFilled,
  leaningWords,
  looksOf,
  markBeside,
  markClaim,
  marksOf,
  sideName,
  whereNow,
  who,
} from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import { colourIn } from '../puzzle/colours'
import type { Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { Stage } from '../schools/school'
import { looksHome, type State } from '../state'
import {
  capital,
  colourOf,
  heldWords,
  inWords,
  kindPlural,
  listed,
  plural,
  baseKind,
} from '../phrases'
import type { Aim } from './aim'
import { pieceMeets, sideOf } from './goal'
import type { PlannedStep } from './workpiece'
import type { RouteLine, StepDraft } from './route'
import { selected } from './selections'
import { unseenWords } from './unseenWords'

/** What the words are made from: once the hold is taken, and after the last turn. */
export interface PieceScene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly stage: Stage
  readonly base: Direction
  readonly state: State
  readonly frame: Rotation
  readonly end: State
  readonly endFrame: Rotation
  /** Whether no step of the stage came before. */
  readonly isFirst: boolean
  readonly step: Pick<PlannedStep, 'endsEarly' | 'turns'>
}

export type PieceWords = Pick<StepDraft, 'lookFor' | 'check' | 'hints'> &
  Partial<
    Pick<
      StepDraft,
      'ifNot' | 'hold' | 'note' | 'lines' | 'algorithm' | 'runs' | 'pieces' | 'places' | 'others'
    >
  >

export const placeIn = (
  { puzzle }: Pick<PieceScene, 'puzzle'>,
  frame: Rotation,
  state: State,
  piece: number,
): string => whereNow(puzzle, frame, piece, state[piece]) ?? 'outside the finished shape'

/** How the whole puzzle is turned before anything else. */
export const holdBy = ({ step }: Pick<PieceScene, 'step'>): Said => {
  const first = step.turns.findIndex(({ role }) => role !== 'hold')
  const opening = first < 0 ? step.turns : step.turns.slice(0, first)
  return [{ kind: 'holdBy', turns: opening.map(({ turn }) => turn.name) }]
}

/** Two pieces and their places, by which a hold is known where sides have no colours. */
export const holdByMarks = (
  scene: Pick<PieceScene, 'puzzle' | 'scheme' | 'state' | 'frame' | 'step'>,
): Said => {
  const { puzzle, scheme, state, frame } = scene
  const marks = marksOf(puzzle, scheme, state, frame) ?? []
  return [...holdBy(scene), ...marks.map((mark) => markClaim(puzzle, mark))]
}

/** Where the base colour is, or the vertex that lacks it; and a piece with its place. */
export function holdOfScene(scene: PieceScene): Said {
  const { puzzle, scheme, base, state, frame } = scene
  if (!hasColouredSides(puzzle)) return holdByMarks(scene)
  const lacking = lackingCentre(scene)
  if (lacking === undefined) {
    const side = turnSide(puzzle, frame, base)
    const mark = markBeside(puzzle, scheme, state, frame, side)
    return [
      ...holdBy(scene),
      { kind: 'sideHeld', side: base.name, at: side.name },
      ...(mark ? [markClaim(puzzle, mark)] : []),
    ]
  }
  const mark = marksOf(puzzle, scheme, state, frame)?.find(({ piece }) => piece !== lacking)
  return [
    ...holdBy(scene),
    pieceAt(puzzle, frame, state, lacking),
    ...(mark ? [markClaim(puzzle, mark)] : []),
  ]
}

export const takenOut = ({ pieces }: Puzzle, piece: number): Claim => ({
  kind: 'takenOut',
  piece: pieces[piece].id,
})

/** Which way its faces look. */
export const shows = (
  { puzzle, state }: Pick<PieceScene, 'puzzle' | 'state'>,
  piece: number,
): Claim => ({
  kind: 'shows',
  piece: puzzle.pieces[piece].id,
  looks: looksOf(puzzle, piece, state[piece]),
})

/** How it lies in its place before, and afterwards. */
export const turnsThere = (
  { puzzle, state, frame, end, endFrame }: Omit<PieceScene, 'isFirst' | 'stage' | 'base' | 'step'>,
  p: number,
): Claim => ({
  kind: 'turnsThere',
  piece: puzzle.pieces[p].id,
  was: lies(puzzle, { state, frame }, p),
  lies: lies(puzzle, { state: end, frame: endFrame }, p),
})

/** Where it goes; that it is turned there if it stays. */
export function goesTo(scene: Omit<PieceScene, 'isFirst'>, p: number): Claim {
  const { puzzle, state, frame, end, endFrame } = scene
  const piece = puzzle.pieces[p].id
  const home = homeFilled(puzzle, endFrame, p, end[p])
  if (home === undefined) return takenOut(puzzle, p)
  if (home === homeFilled(puzzle, frame, p, state[p])) return turnsThere(scene, p)
  const how = lies(puzzle, { state: end, frame: endFrame }, p)
  return { kind: 'goesTo', piece, place: puzzle.pieces[home].id, lies: how }
}

/** Where a piece lies. */
export function pieceAt(puzzle: Puzzle, frame: Rotation, state: State, piece: number): Claim {
  const home = homeFilled(puzzle, frame, piece, state[piece])
  const { id } = puzzle.pieces[piece]
  return {
    kind: 'pieceAt',
    piece: id,
    ...(home === undefined ? {} : { place: puzzle.pieces[home].id }),
  }
}

/** On a tetrahedron: the centre that lacks the base colour, because its vertex is held away from that face. */
function lackingCentre({ puzzle, base }: PieceScene): number | undefined {
  const colour = puzzle.definition.faces[base.name]
  const centres = anchorsOf(puzzle).filter((p) =>
    baseKind(puzzle.pieces[p].kind).endsWith('centre'),
  )
  const lacking = centres.filter((p) =>
    puzzle.pieces[p].faces.every((face) => face.colour !== colour),
  )
  return lacking.length === 1 && centres.length > 2 ? lacking[0] : undefined
}

function lackingWords(scene: PieceScene): string | undefined {
  const { puzzle, scheme, base, state, frame } = scene
  const lacking = lackingCentre(scene)
  if (lacking === undefined) return undefined
  return `One vertex lacks ${colourOf(puzzle, scheme, base)}: ${who(puzzle, scheme, lacking)} is ${placeIn(scene, frame, state, lacking)}.`
}

export const ids = (puzzle: Puzzle, pieces: readonly number[]) =>
  pieces.map((p) => puzzle.pieces[p].id)

const homeIn = (puzzle: Puzzle, state: State, frame: Rotation, piece: number): boolean =>
  looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))

export function spinWords(
  scene: PieceScene,
  { piece }: Extract<Aim, { kind: 'spin' }>,
): PieceWords {
  const { puzzle, scheme, base, stage, state, frame, endFrame } = scene
  const name = who(puzzle, scheme, piece)
  const at = pieceAt(puzzle, frame, state, piece)
  const isBeside = stage.goal.some(
    ({ must, select }) =>
      must === 'together' && select?.kinds?.includes(baseKind(puzzle.pieces[piece].kind)),
  )
  const isHome = homeIn(puzzle, scene.end, endFrame, piece)
  const colour = sideName(puzzle, scheme, base)
  const shows = leaningWords(puzzle, scheme, piece, scene.end[piece])
  return {
    lookFor: [at, turnsThere(scene, piece)],
    hold: holdOfScene(scene),
    check: !hasColouredSides(puzzle)
      ? `it shows ${shows}.`
      : isBeside && !isHome
        ? 'its colours go on over the piece under it.'
        : `its ${puzzle.pieces[piece].faces.some((face) => colourIn(scheme, face.colour).name === colour) ? `${colour} is ${heldWords(turnSide(puzzle, endFrame, base))}` : 'colours go on over the pieces beside it'}.`,
    ifNot: 'Keep turning that layer until it matches.',
    ...noteOf(scene.isFirst ? lackingWords(scene) : undefined),
    hints: {
      nudge: `Look for ${name}.`,
      pointer: [at],
    },
    pieces: ids(puzzle, [piece]),
  }
}

const noteOf = (note: string | undefined) => (note ? { note } : {})

export function bringWords(scene: PieceScene, aim: Extract<Aim, { kind: 'bring' }>): PieceWords {
  const { puzzle, scheme, base, stage, state, frame, end, endFrame } = scene
  const { piece } = aim
  const name = who(puzzle, scheme, piece)
  const to = placeIn(scene, endFrame, end, piece)
  const at = pieceAt(puzzle, frame, state, piece)
  const told = [
    at,
    aim.isLift ? takenOut(puzzle, piece) : goesTo(scene, piece),
    shows(scene, piece),
  ]
  const { technique } = stage
  const group = technique.kind === 'insert' ? selected(puzzle, technique.select, base) : [piece]
  const right = group.filter((p) => homeIn(puzzle, end, endFrame, p)).length
  const noun = kindPlural(baseKind(puzzle.pieces[piece].kind))
  return {
    lookFor: told,
    hold: holdOfScene(scene),
    check: aim.isLift
      ? `${name} is ${to}. What was right is still right.`
      : `${name} is ${to}. ${capital(rightWords(right, group.length, noun))}.`,
    ...noteOf(
      [
        ...unseenWords(scene, [piece], 'home'),
        ...(aim.isLift ? ["It can't go in from here, so first take it out."] : []),
      ].join(' ') || undefined,
    ),
    hints: { nudge: `Look for ${name}.`, pointer: [at] },
    algorithm: aim.sequence,
    ...(aim.runs > 1 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [piece]),
    places: aim.isLift
      ? []
      : ids(puzzle, [homeFilled(puzzle, endFrame, piece, end[piece]) ?? piece]),
    others: aim.others.map(({ piece: other, turns }) => ({
      piece: puzzle.pieces[other].id,
      says: asSaid(`${capital(who(puzzle, scheme, other))}: ${plural(turns, 'turn')}.`),
    })),
  }
}

function rightWords(right: number, count: number, noun: string): string {
  if (right === count) return `all ${inWords(count)} ${noun} of the stage are home`
  if (right === 0) return `none of the ${inWords(count)} ${noun} of the stage is home yet`
  return `${inWords(right)} of the ${inWords(count)} ${noun} of the stage ${right === 1 ? 'is' : 'are'} home`
}

/** More places than these are not listed. */
const MOST_LISTED = 3
/** Nor where their names are so long together. */
const LONGEST_LIST = 90

/** Which of some pieces are as the stage wants them, and where these lie. */
export function statusWords(
  scene: Omit<PieceScene, 'isFirst'>,
  { pieces, must, layer }: Pick<Extract<Aim, { kind: 'known' }>, 'pieces' | 'must' | 'layer'>,
  state: State,
  frame: Rotation,
): string {
  const { puzzle, scheme, base } = scene
  const condition = { layer, must, pieces }
  // Whether it is home is told by the eye; what deceives it has a sentence of its own.
  const right = pieces.filter((p) =>
    must === 'home'
      ? homeIn(puzzle, state, frame, p)
      : pieceMeets(puzzle, condition, base, state, p, frame),
  )
  const noun = kindPlural(baseKind(puzzle.pieces[pieces[0]].kind))
  const total = inWords(pieces.length)
  const where = right.map((p) => placeIn(scene, frame, state, p))
  const isListed =
    right.length > 0 &&
    right.length < pieces.length &&
    right.length <= MOST_LISTED &&
    listed(where).length <= LONGEST_LIST
  const list = isListed ? `: ${listed(where)}` : ''
  if (must === 'faced' && !hasColouredSides(puzzle)) {
    if (right.length === 0) return `none of the ${total} ${noun} is turned right`
    if (right.length === pieces.length) return `all ${total} ${noun} are turned right`
    return `${inWords(right.length)} of the ${total} ${noun} ${right.length === 1 ? 'is' : 'are'} turned right${list}`
  }
  if (must === 'faced') {
    const side = sideOf(layer, base)
    const colour = colourOf(puzzle, scheme, side)
    const toward = turnSide(puzzle, frame, side).toward
    const count =
      right.length === 0
        ? `none of the ${total} ${noun}`
        : right.length === pieces.length
          ? `all ${total} ${noun}`
          : `${inWords(right.length)} of the ${total} ${noun}`
    return `${colour} looks ${toward} on ${count}${list}`
  }
  const state_ = must === 'placed' ? STATES.placed : STATES.home
  if (right.length === 0) return `none of the ${total} ${noun} is ${state_[0]}`
  if (right.length === pieces.length) return `all ${total} ${noun} are ${state_[1]}`
  return `${inWords(right.length)} of the ${total} ${noun} ${right.length === 1 ? `is ${state_[0]}` : `are ${state_[1]}`}${list}`
}

const STATES = { placed: ['in its place', 'in their places'], home: ['home', 'home'] } as const

/** What 'turned right' means where no colour tells. */
export const facedInSolid = (kind: string): string =>
  `${kind === 'edge' ? 'An edge' : `A ${kind}`} is turned right if a turn of that layer alone would bring it home.`

export function knownWords(scene: PieceScene, aim: Extract<Aim, { kind: 'known' }>): PieceWords {
  const { puzzle, state, frame, end, endFrame } = scene
  const now = statusWords(scene, aim, state, frame)
  const noun = kindPlural(baseKind(puzzle.pieces[aim.pieces[0]].kind))
  const lines = aim.must === 'faced' ? undefined : linesOf(scene, aim.pieces)
  return {
    lookFor: `how the ${noun} lie: ${now}.`,
    ...(lines && lines.length > 0 ? { lines } : {}),
    hold: holdOfScene(scene),
    check: `${statusWords(scene, aim, end, endFrame)}.`,
    ...noteOf(
      [
        ...(lines && lines.length > 0 ? [`${capital(now)}.`] : []),
        ...(aim.must === 'faced' && !hasColouredSides(puzzle)
          ? [facedInSolid(baseKind(puzzle.pieces[aim.pieces[0]].kind))]
          : []),
        ...unseenWords(scene, aim.pieces, aim.must),
        ...(aim.sequence.length === 0 ? ['Only a turn of one layer is missing.'] : []),
      ].join(' ') || undefined,
    ),
    hints: {
      nudge: `Look at the ${inWords(aim.pieces.length)} ${noun} of the stage: which are right?`,
      pointer: lines && lines.length > 0 ? lines[0].says : `${capital(now)}.`,
    },
    algorithm: aim.sequence,
    pieces: lines && lines.length > 0 ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
  }
}

export function evenWords(scene: PieceScene, { of }: Extract<Aim, { kind: 'even' }>): PieceWords {
  const { puzzle, end, endFrame } = scene
  const kinds = [...new Set(of.map((p) => kindPlural(baseKind(puzzle.pieces[p].kind))))]
  const noun = kinds.length > 1 ? `${listed(kinds)} together` : kinds[0]
  const status = { pieces: of, must: 'home', layer: 'base' } as const
  return {
    lookFor: `how the ${noun} could be exchanged two at a time: it would take an odd number of times.`,
    hold: holdOfScene(scene),
    check:
      kinds.length > 1
        ? `the ${noun} take an even number of exchanges now.`
        : `${statusWords(scene, status, end, endFrame)}.`,
    note: 'Three that go round are two exchanges, so an odd number is never brought home by them. A quarter turn makes it even.',
    hints: {
      nudge: `Count the exchanges that would bring the ${noun} home.`,
      pointer: 'One quarter turn is made first.',
    },
    pieces: ids(puzzle, of),
  }
}

/** Most third pieces that are offered. */
export const THIRDS = 12

/** What comes of a series with another third piece. */
export const arriveWords = (arrive: number): string =>
  arrive === 3
    ? 'All three arrive right'
    : arrive === 2
      ? 'Two of the three arrive right'
      : 'Only the first arrives right'

export function seriesWords(scene: PieceScene, aim: Extract<Aim, { kind: 'series' }>): PieceWords {
  const { puzzle, scheme, state, frame, end, endFrame } = scene
  // Where everything looks home before the set-up is undone, no three have changed places.
  const lines = scene.step.endsEarly ? [] : (linesOf(scene, aim.pieces) ?? [])
  const of = { pieces: aim.of, must: 'home', layer: 'base' } as const
  const group = kindPlural(baseKind(puzzle.pieces[aim.of[0]].kind))
  return {
    lookFor:
      lines.length > 0
        ? `three ${group} that go round.`
        : `nothing more: as the ${group} look, these turns bring all of them home.`,
    ...(lines.length > 0 ? { lines } : {}),
    hold: holdOfScene(scene),
    check: `${statusWords(scene, of, end, endFrame)}.`,
    ...noteOf(unseenWords(scene, aim.pieces, 'home').join(' ') || undefined),
    hints: {
      nudge: `Look for three ${group} that can go round: one comes home at least.`,
      pointer: lines[0]?.says ?? `${capital(statusWords(scene, of, end, endFrame))}.`,
    },
    algorithm: aim.sequence,
    pieces: lines.length > 0 ? lines.map(({ piece }) => piece) : ids(puzzle, aim.pieces),
    places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
    others: aim.thirds.slice(0, THIRDS).map(({ piece, arrive }) => ({
      piece: puzzle.pieces[piece].id,
      first: puzzle.pieces[aim.pieces[0]].id,
      says: asSaid(
        `${capital(who(puzzle, scheme, piece))}, now ${placeIn(scene, frame, state, piece)}. ${arriveWords(arrive)}.`,
      ),
    })),
  }
}

/** The pieces that move or turn, where these are at most three and go to each other's places. */
export function linesOf(scene: PieceScene, pieces: readonly number[]): RouteLine[] | undefined {
  const { puzzle, state, frame, end, endFrame } = scene
  const at = (of: State, hold: Rotation, p: number) =>
    puzzle.place[24 * p + multiply(INVERSE[hold], of[p])]
  const changed = pieces.filter(
    (p) => multiply(INVERSE[frame], state[p]) !== multiply(INVERSE[endFrame], end[p]),
  )
  if (changed.length > 3) return undefined
  const from = changed.map((p) => at(state, frame, p))
  const to = changed.map((p) => at(end, endFrame, p))
  if (to.some((place) => !from.includes(place))) return undefined
  return changed.map((p, i) => {
    const target = from.indexOf(to[i])
    const [{ id: piece }, { id: place }] = [puzzle.pieces[p], puzzle.pieces[to[i]]]
    const goes = (): Claim => ({
      ...{ kind: 'goesTo', piece, place, line: target + 1 },
      lies: lies(puzzle, { state: end, frame: endFrame }, p),
    })
    return {
      piece,
      to: place,
      says: [pieceAt(puzzle, frame, state, p), target === i ? turnsThere(scene, p) : goes()],
    }
  })
}
