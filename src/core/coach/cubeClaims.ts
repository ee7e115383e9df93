/** What is claimed of steps on boxes whose sides have colours: first pieces, layers, counting, twisting, cases. */
import { directionOfLetter, turnDirection, type Direction } from '../puzzle/directions'
import { IDENTITY, INVERSE, multiply } from '../rotation'
import type { Condition } from '../schools/school'
import { looksHome, placeOf, start, type State } from '../state'
import type { Aim } from './aim'
import { frameMeeting, piecesOfSide, sideOf } from './goal'
import {
  endOf,
  endsAt,
  goesTo,
  holdBy,
  holdByMarks,
  homeCount,
  ids,
  liesAt,
  noneLost,
  noteOf,
  whyTakenOut,
  offered,
  seek,
  seekAmong,
  takenOut,
  type PieceScene,
} from './pieceClaims'
import type { StepClaims } from './route'
import {
  alignedCheck,
  alignInSolid,
  countClaims,
  countInSolid,
  insertInSolid,
  lastTurnLeft,
  otherwise,
  startInSolid,
  takeOutInSolid,
  twistedAt,
  twistInSolid,
} from './solidClaims'
import { hasColouredSides } from '../analysis/sides'
import type { Claim, Said } from '../claims/claim'
import { looksOf, markBeside, markClaim } from '../analysis/who'
import { sideAt, sidesShown } from '../phrases'
import { after, held, type PlannedStep } from './workpiece'

export interface CubeScene extends PieceScene {
  readonly step: PlannedStep
  readonly steps: readonly PlannedStep[]
  /** As the puzzle is held when the card is read. */
  readonly before: State
}

/**
 * Where the first colour is, and a second one where some finished piece shows it there; else a piece and
 * its place.
 */
export function holdClaims(scene: CubeScene): Said {
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
function isWholeStage({ puzzle, stage, base, step, state, frame }: CubeScene): boolean {
  if (step.aim.kind === 'insert' || step.aim.kind === 'start')
    return stage.goal.some(({ must }) => must === 'home')
  return piecesOfSide(puzzle, base).every((p) => state[p] === frame)
}

/** Where a piece's colour of a side looks, then its others if they are asked for too. */
function showsFirst(
  scene: CubeScene,
  piece: number,
  { base, state }: { readonly base: Direction; readonly state: State },
  isAlone = false,
): Claim {
  const { puzzle } = scene
  const looks = looksOf(puzzle, piece, state[piece])
  const first = puzzle.definition.faces[base.name]
  const own = looks.filter(({ colour }) => colour === first)
  const others = looks.filter(({ colour }) => colour !== first)
  return {
    ...{ kind: 'shows', piece: puzzle.pieces[piece].id },
    looks: isAlone && own.length > 0 ? own : [...own, ...others],
  }
}

export function startClaims(scene: CubeScene, aim: Extract<Aim, { kind: 'start' }>): StepClaims {
  if (!hasColouredSides(scene.puzzle)) return startInSolid(scene, aim)
  const { puzzle, base } = scene
  const { id } = puzzle.pieces[aim.piece]
  const others = aim.already.filter((p) => p !== aim.piece)
  const look = showsFirst(scene, aim.piece, scene, true)
  const note: Said = [
    ...(others.length > 0 ? [{ kind: 'rightTogether', pieces: ids(puzzle, others) } as const] : []),
    ...noLayerYet(scene),
  ]
  return {
    lookFor: [liesAt(scene, aim.piece), look, { kind: 'countsAsHome', piece: id }],
    check: [endsAt(scene, aim.piece)],
    ifNot: otherwise('holdAgain'),
    ...(note.length > 0 ? { note } : {}),
    hints: {
      nudge: [seekAmong(puzzle, piecesOfSide(puzzle, base), 'first')],
      pointer: [{ kind: 'beginWith', piece: id }],
    },
    pieces: ids(puzzle, aim.already),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

/** A face of one colour whose sides do not match is no layer yet; where only faces count it is. */
function noLayerYet({ puzzle, base, stage, before }: CubeScene): Claim[] {
  if (!stage.goal.some(({ layer, must }) => layer === 'base' && must === 'home')) return []
  const face: readonly Condition[] = [{ layer: 'base', must: 'faced' }]
  return frameMeeting(puzzle, face, base, before) === undefined
    ? []
    : [{ kind: 'noLayerYet', side: base.name }]
}

export function insertClaims(scene: CubeScene, aim: Extract<Aim, { kind: 'insert' }>): StepClaims {
  if (!hasColouredSides(scene.puzzle)) return insertInSolid(scene, aim)
  const { puzzle, end } = scene
  const note: Said = [...(aim.runs > 0 ? runsClaims(scene, aim) : []), ...slotDeceives(scene, aim)]
  return {
    lookFor: [
      liesAt(scene, aim.piece),
      goesTo(scene, aim.piece),
      showsFirst(scene, aim.piece, scene, true),
    ],
    check: insertCheck(scene, aim),
    ...(note.length > 0 ? { note } : {}),
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [liesAt(scene, aim.piece)] },
    algorithm: aim.trigger,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, end, aim.piece)]),
    others: offered(puzzle, aim.others),
  }
}

/** White is up, and where a neighbour is home already their side colours meet. */
function insertCheck(scene: CubeScene, aim: Extract<Aim, { kind: 'insert' }>): Said {
  const { puzzle, base, end, endFrame } = scene
  const own = piecesOfSide(puzzle, base)
  if (aim.must === 'faced')
    return [homeCount(scene, own, { must: 'faced', layer: 'base' }, endOf(scene))]
  const met = sidesShown(puzzle, aim.piece, 0)
    .filter((side) => side !== base)
    .filter((side) =>
      own.some(
        (p) => p !== aim.piece && end[p] === endFrame && sidesShown(puzzle, p, 0).includes(side),
      ),
    )
    .map((side) => ({
      colour: puzzle.definition.faces[side.name],
      toward: [turnDirection(endFrame, side).name],
    }))
  return [
    showsFirst(scene, aim.piece, { base, state: end }, true),
    ...(met.length > 0
      ? [{ kind: 'matches', piece: puzzle.pieces[aim.piece].id, looks: met } as const]
      : []),
  ]
}

function runsClaims(scene: CubeScene, aim: Extract<Aim, { kind: 'insert' }>): Said {
  const { puzzle, step } = scene
  const first = step.turns.findIndex(({ role }) => role === 'do' || role === 'setup')
  const opening = step.turns.slice(0, first).map(({ turn }) => turn)
  const before = after(puzzle, step.before, step.frame, opening)
  const isInSlot =
    placeOf(puzzle, before.state, aim.piece) === placeOf(puzzle, scene.end, aim.piece)
  const told: Claim = {
    ...{ kind: 'triggerRuns', piece: puzzle.pieces[aim.piece].id, times: aim.runs },
    ...(isInSlot ? { isInSlot } : {}),
  }
  // One run from the other layer is what everybody expects.
  return [...(aim.runs === 1 && !isInSlot ? [] : [told]), ...lastTurnLeft(aim)]
}

/** The colour is right but the piece is not: the slot's present piece deceives. */
function slotDeceives(
  { puzzle, base, stage, state, frame }: CubeScene,
  aim: Extract<Aim, { kind: 'insert' }>,
): Claim[] {
  if (aim.must !== 'home') return []
  const slot = puzzle.place[24 * aim.piece + frame]
  const there = state.findIndex((_, p) => placeOf(puzzle, state, p) === slot)
  if (there === aim.piece || !sidesShown(puzzle, there, 0).includes(base)) return []
  if (turnDirection(state[there], base) !== held(stage).base) return []
  const colour = puzzle.definition.faces[base.name]
  return [{ kind: 'slotDeceives', piece: puzzle.pieces[aim.piece].id, colour }]
}

export function takeOutClaims(
  scene: CubeScene,
  aim: Extract<Aim, { kind: 'takeOut' }>,
): StepClaims {
  if (!hasColouredSides(scene.puzzle)) return takeOutInSolid(scene, aim)
  const { puzzle, base, stage, state } = scene
  const { id } = puzzle.pieces[aim.piece]
  const own = piecesOfSide(puzzle, base)
  return {
    lookFor: [
      liesAt(scene, aim.piece),
      takenOut(puzzle, aim.piece),
      showsFirst(scene, aim.piece, scene),
    ],
    check: [{ kind: 'inLayer', piece: id, at: held(stage).last.name }, noneLost(scene, own)],
    ...noteOf(whyTakenOut(scene, aim.piece, own)),
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [liesAt(scene, aim.piece)] },
    algorithm: aim.trigger,
    runs: { times: 1, before: 0, total: 1 },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, state, aim.piece)]),
  }
}

export function placedClaims(scene: CubeScene, aim: Extract<Aim, { kind: 'count' }>): StepClaims {
  if (!hasColouredSides(scene.puzzle)) return countInSolid(scene, aim)
  const { puzzle, base } = scene
  const last = sideOf('last', base)
  const told = countClaims(scene, aim, piecesOfSide(puzzle, last))
  return { ...told, note: [{ kind: 'meansPlaced', side: last.name }, ...(told.note ?? [])] }
}

export function twistClaims(scene: CubeScene, aim: Extract<Aim, { kind: 'twist' }>): StepClaims {
  const { puzzle, base, step } = scene
  const side = sideOf('last', base)
  const to = aim.runsBefore + aim.runs
  const round = runsUntilWhole(scene, aim.trigger)
  const of = ids(puzzle, piecesOfSide(puzzle, side))
  const note: Said = [
    {
      ...{ kind: 'runs', from: aim.runsBefore + 1, to, total: aim.runsTotal },
      wholeAt: Math.ceil(to / round) * round,
    },
    // Once is enough.
    ...(aim.runsBefore > 0
      ? []
      : [
          {
            ...{ kind: 'finishRuns' as const },
            ...(step.turns[0]?.role === 'hold' ? { isOnceHeld: true as const } : {}),
          },
        ]),
    // Of equal ones on a solid nobody sees which are left.
    ...(hasColouredSides(puzzle) ? [{ kind: 'twistsLeft', of, count: aim.left } as const] : []),
    ...(step.endsEarly ? [{ kind: 'endsEarly' } as const] : []),
  ]
  if (!hasColouredSides(puzzle)) return twistInSolid(scene, aim, note)
  return {
    lookFor: [
      liesAt(scene, aim.piece),
      twistedAt(scene, aim.piece),
      showsFirst(scene, aim.piece, { base: side, state: scene.state }, true),
    ],
    check: [showsFirst(scene, aim.piece, { base: side, state: scene.end }, true)],
    ifNot: otherwise('finishRun'),
    note,
    hints: {
      nudge: [seekAmong(puzzle, piecesOfSide(puzzle, side), 'twisted')],
      pointer: [liesAt(scene, aim.piece)],
    },
    algorithm: aim.trigger,
    runs: { times: aim.runs, before: aim.runsBefore, total: aim.runsTotal },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, aim.piece)]),
  }
}

/** After so many runs of a trigger whatever it moves outside the last layer is back, by doing it. */
function runsUntilWhole({ puzzle, stage }: CubeScene, trigger: readonly string[]): number {
  const turns = trigger.flatMap((name) => puzzle.turnByName.get(name) ?? [])
  const side = piecesOfSide(puzzle, held(stage).last)
  const others = puzzle.pieces.flatMap((_, p) => (side.includes(p) ? [] : [p]))
  let state = start(puzzle)
  for (let runs = 1; ; runs++) {
    state = after(puzzle, state, IDENTITY, turns).state
    if (others.every((p) => state[p] === IDENTITY)) return runs
  }
}

export function alignClaims(scene: CubeScene): StepClaims {
  if (!hasColouredSides(scene.puzzle)) return alignInSolid(scene)
  const { puzzle, base } = scene
  const pieces = piecesOfSide(puzzle, sideOf('last', base))
  return {
    lookFor: [{ kind: 'turnMissing' }],
    check: alignedCheck(scene, pieces),
    ifNot: otherwise('keepTurning'),
    hints: { nudge: [seekAmong(puzzle, pieces, 'right')], pointer: [{ kind: 'turnMissing' }] },
    pieces: ids(puzzle, pieces),
  }
}
