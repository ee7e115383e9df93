/**
 * What is claimed of steps on solids, where no side has a colour of its own: what is `turned right` is told by fitting.
 */
import { lookClassesOf } from '../analysis/lookAlikes'
import { sideOpposite } from '../analysis/sides'
import { looksOf } from '../analysis/who'
import type { Claim, Of, Said } from '../claims/claim'
import { isSolved, placeOf } from '../state'
import type { Aim } from './aim'
import { piecesOfSide } from './goal'
import {
  endOf,
  endsAt,
  fittingMeans,
  goesTo,
  heldIn,
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
  shows,
  takenOut,
  type PieceScene,
} from './pieceClaims'
import type { StepClaims } from './route'
import { deceptions } from './unseen'

/** What to do where the check does not come out. */
export const otherwise = (what: Of<'otherwise'>['what']): Said => [{ kind: 'otherwise', what }]

/** How many pieces of the first layer are as the stage wants them. */
const progressOf = (scene: PieceScene, must: 'home' | 'faced'): Claim =>
  homeCount(scene, piecesOfSide(scene.puzzle, scene.base), { must, layer: 'base' }, endOf(scene))

export function startInSolid(scene: PieceScene, aim: Extract<Aim, { kind: 'start' }>): StepClaims {
  const { puzzle } = scene
  const { id } = puzzle.pieces[aim.piece]
  const others = aim.already.filter((p) => p !== aim.piece)
  return {
    lookFor: [liesAt(scene, aim.piece), { kind: 'countsAsHome', piece: id }],
    hold: holdByMarks(scene),
    check: [endsAt(scene, aim.piece)],
    ifNot: otherwise('holdAgain'),
    ...(others.length > 0
      ? { note: [{ kind: 'rightTogether', pieces: ids(puzzle, others) }] }
      : {}),
    hints: {
      nudge: [seekAmong(puzzle, piecesOfSide(puzzle, scene.base), 'first')],
      pointer: [{ kind: 'beginWith', piece: id }],
    },
    pieces: ids(puzzle, aim.already),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

export function insertInSolid(
  scene: PieceScene,
  aim: Extract<Aim, { kind: 'insert' }>,
): StepClaims {
  const { puzzle } = scene
  const note: Said = [
    ...(aim.must === 'home' ? deceptions(scene, [aim.piece], 'home') : []),
    ...lastTurnLeft(aim),
  ]
  return {
    lookFor: [liesAt(scene, aim.piece), goesTo(scene, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [progressOf(scene, aim.must)],
    ...(note.length > 0 ? { note } : {}),
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [liesAt(scene, aim.piece)] },
    algorithm: aim.trigger,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, aim.piece)]),
    others: offered(puzzle, aim.others),
  }
}

/** That the last turn of a trigger is left out where it would turn the other layer only. */
export const lastTurnLeft = ({
  lastDropped,
  trigger,
}: Extract<Aim, { kind: 'insert' }>): Claim[] =>
  lastDropped ? [{ kind: 'lastTurnLeft', turn: trigger[trigger.length - 1] }] : []

export function takeOutInSolid(
  scene: PieceScene,
  aim: Extract<Aim, { kind: 'takeOut' }>,
): StepClaims {
  const { puzzle, base } = scene
  return {
    lookFor: [liesAt(scene, aim.piece), takenOut(puzzle, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [endsAt(scene, aim.piece), noneLost(scene, piecesOfSide(puzzle, base))],
    ...noteOf(whyTakenOut(scene, aim.piece, piecesOfSide(puzzle, base))),
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [liesAt(scene, aim.piece)] },
    algorithm: aim.trigger,
    runs: { times: 1, before: 0, total: 1 },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

const lastPieces = ({ puzzle, base }: PieceScene): readonly number[] => {
  const side = sideOpposite(puzzle, base)
  return side ? piecesOfSide(puzzle, side) : []
}

export function countInSolid(scene: PieceScene, aim: Extract<Aim, { kind: 'count' }>): StepClaims {
  return { hold: holdByMarks(scene), ...countClaims(scene, aim, lastPieces(scene)) }
}

/** Counting placed pieces and cycling three of them. */
export function countClaims(
  scene: PieceScene,
  aim: Extract<Aim, { kind: 'count' }>,
  pieces: readonly number[],
): Omit<StepClaims, 'hold'> {
  const { puzzle, base } = scene
  const of = ids(puzzle, pieces)
  const side = sideOpposite(puzzle, base) ?? base
  const { classOf, classSize } = lookClassesOf(puzzle)
  // Of equal ones nobody can count which are placed.
  const counted: Said = pieces.some((p) => classSize[classOf[p]] > 1)
    ? []
    : [{ kind: 'placedCounts', of, side: side.name, counts: aim.counts }]
  const common = {
    ifNot: otherwise(aim.action === 'align' ? 'countOn' : 'countAgain'),
    algorithm: aim.action === 'align' ? [] : aim.cycle,
    ...(aim.runs > 0 ? { runs: { times: aim.runs, before: 0, total: aim.runs } } : {}),
  }
  const nudge: Said = [seekAmong(puzzle, pieces, 'placed')]
  const check: Said = [homeCount(scene, pieces, { must: 'placed', layer: 'last' }, endOf(scene))]
  if (aim.action === 'align')
    return {
      ...common,
      lookFor: [{ kind: 'allPlacedSomewhere', of, side: side.name }],
      check,
      note: counted,
      hints: { nudge, pointer: [{ kind: 'turnMissing' }] },
      pieces: of,
    }
  if (aim.action === 'cycleAnyway')
    return {
      ...common,
      lookFor: [{ kind: 'nowhereOnePlaced', of, side: side.name }],
      check: [{ kind: 'somewhereOnePlaced', of, side: side.name }],
      note: counted,
      hints: { nudge, pointer: [{ kind: 'nowhereOnePlaced', of, side: side.name }] },
      pieces: of,
    }
  const piece = aim.piece as number
  const { id } = puzzle.pieces[piece]
  return {
    ...common,
    lookFor: [{ kind: 'onePlaced', of, side: side.name, piece: id }],
    check,
    note: [
      ...counted,
      { ...{ kind: 'staysAt', piece: id, times: aim.runs }, ...placeIn(scene, piece) },
    ],
    hints: { nudge, pointer: [{ kind: 'onePlaced', of, side: side.name, piece: id }] },
    pieces: ids(puzzle, [piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.end, piece)]),
  }
}

/** Where it is twisted, if that is not where it lies. */
export function twistedAt(scene: PieceScene, piece: number): Claim {
  const { place } = placeIn(scene, piece)
  const lies = liesAt(scene, piece)
  const isThere = lies.kind === 'pieceAt' && lies.place === place
  return {
    ...{ kind: 'twistedAt', piece: scene.puzzle.pieces[piece].id },
    ...(isThere || place === undefined ? {} : { place }),
  }
}

/** Where a piece lies after the step. */
const placeIn = (scene: PieceScene, piece: number): { readonly place?: string } => {
  const claim = endsAt(scene, piece)
  return claim.kind === 'pieceAt' && claim.place !== undefined ? { place: claim.place } : {}
}

/** A sequence may leave all of it turned: where everything is home, that is what is said. */
export const alignedCheck = (scene: PieceScene, pieces: readonly number[]): Said =>
  isSolved(scene.puzzle, scene.end)
    ? [{ kind: 'solved' }]
    : [homeCount(scene, pieces, { must: 'home', layer: 'last' }, endOf(scene))]

export function alignInSolid(scene: PieceScene): StepClaims {
  const pieces = lastPieces(scene)
  return {
    lookFor: [{ kind: 'turnMissing' }],
    hold: holdByMarks(scene),
    check: alignedCheck(scene, pieces),
    ifNot: otherwise('keepTurning'),
    hints: {
      nudge: [seekAmong(scene.puzzle, pieces, 'right')],
      pointer: [{ kind: 'turnMissing' }],
    },
    pieces: ids(scene.puzzle, pieces),
  }
}

export function caseInSolid(scene: PieceScene, aim: Extract<Aim, { kind: 'case' }>): StepClaims {
  const { puzzle } = scene
  const isDirections = aim.reading === 'directions'
  const pieces = lastPieces(scene)
  const must = isDirections ? 'faced' : 'home'
  const which = { kind: 'caseIs', nth: aim.caseIndex + 1, of: aim.caseCount } as const
  return {
    lookFor: [
      homeCount(scene, pieces, { must, layer: 'last', lists: true }, heldIn(scene)),
      ...pieces.flatMap((p) => [liesAt(scene, p), shows(scene, p)]),
    ],
    hold: holdByMarks(scene),
    check: [
      isDirections
        ? homeCount(scene, pieces, { must, layer: 'last' }, endOf(scene))
        : { kind: 'doneButForTurn' },
    ],
    note: [
      which,
      ...(isDirections ? [fittingMeans(scene, pieces)] : []),
      ...deceptions(scene, pieces, must),
    ],
    hints: {
      nudge: [{ kind: 'seekCase', of: ids(puzzle, pieces), cases: aim.caseCount }],
      pointer: [which],
    },
    algorithm: aim.algorithm,
    pieces: ids(puzzle, pieces),
    caseIndex: aim.caseIndex,
  }
}

export function twistInSolid(
  scene: PieceScene,
  aim: Extract<Aim, { kind: 'twist' }>,
  note: Said,
): StepClaims {
  const { puzzle, end } = scene
  const { id } = puzzle.pieces[aim.piece]
  return {
    lookFor: [liesAt(scene, aim.piece), twistedAt(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [{ kind: 'shows', piece: id, looks: looksOf(puzzle, aim.piece, end[aim.piece]) }],
    ifNot: otherwise('finishRun'),
    note: [...deceptions(scene, [aim.piece], 'home'), ...note],
    hints: {
      nudge: [seekAmong(puzzle, lastPieces(scene), 'twisted')],
      pointer: [liesAt(scene, aim.piece)],
    },
    algorithm: aim.trigger,
    runs: { times: aim.runs, before: aim.runsBefore, total: aim.runsTotal },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, end, aim.piece)]),
  }
}
