/**
 * What is claimed of steps on solids, where no side has a colour of its own: what is `turned right` is told by fitting.
 */
import { lookClassesOf } from '../analysis/lookAlikes'
import { sideOpposite } from '../analysis/sides'
import { looksOf } from '../analysis/who'
import type { Claim, Of, Said } from '../claims/claim'
import { placeOf } from '../state'
import type { Aim } from './aim'
import { piecesOfSide } from './goal'
import {
  endOf,
  fittingMeans,
  goesTo,
  heldIn,
  holdByMarks,
  homeCount,
  ids,
  noneLost,
  offered,
  pieceAt,
  seek,
  seekAmong,
  shows,
  takenOut,
  type PieceScene,
} from './pieceClaims'
import type { StepDraft } from './route'
import { deceptions } from './unseen'

type SolidScene = PieceScene

type Words = Pick<StepDraft, 'lookFor' | 'hold' | 'check' | 'hints'> &
  Partial<
    Pick<
      StepDraft,
      'ifNot' | 'note' | 'runs' | 'algorithm' | 'pieces' | 'places' | 'others' | 'caseIndex'
    >
  >

/** What to do where the check does not come out. */
export const otherwise = (what: Of<'otherwise'>['what']): Said => [{ kind: 'otherwise', what }]

const at = ({ puzzle, frame, state }: SolidScene, piece: number): Claim =>
  pieceAt(puzzle, frame, state, piece)

const then = ({ puzzle, endFrame, end }: SolidScene, piece: number): Claim =>
  pieceAt(puzzle, endFrame, end, piece)

/** How many pieces of the first layer are as the stage wants them. */
const progressOf = (scene: SolidScene, must: 'home' | 'faced'): Claim =>
  homeCount(scene, piecesOfSide(scene.puzzle, scene.base), { must, layer: 'base' }, endOf(scene))

export function startInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'start' }>): Words {
  const { puzzle } = scene
  const { id } = puzzle.pieces[aim.piece]
  const others = aim.already.filter((p) => p !== aim.piece)
  return {
    lookFor: [at(scene, aim.piece), { kind: 'countsAsHome', piece: id }],
    hold: holdByMarks(scene),
    check: [then(scene, aim.piece)],
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

export function insertInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'insert' }>): Words {
  const { puzzle } = scene
  const note: Said = [
    ...(aim.must === 'home' ? deceptions(scene, [aim.piece], 'home') : []),
    ...lastTurnLeft(aim),
  ]
  return {
    lookFor: [at(scene, aim.piece), goesTo(scene, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [progressOf(scene, aim.must)],
    ...(note.length > 0 ? { note } : {}),
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [at(scene, aim.piece)] },
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

export function takeOutInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'takeOut' }>): Words {
  const { puzzle, base } = scene
  return {
    lookFor: [at(scene, aim.piece), takenOut(puzzle, aim.piece), shows(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [then(scene, aim.piece), noneLost(scene, piecesOfSide(puzzle, base))],
    note: [{ kind: 'noneWaits', of: ids(puzzle, piecesOfSide(puzzle, base)) }],
    hints: { nudge: [seek(puzzle, aim.piece)], pointer: [at(scene, aim.piece)] },
    algorithm: aim.trigger,
    runs: { times: 1, before: 0, total: 1 },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, scene.state, aim.piece)]),
  }
}

const lastPieces = ({ puzzle, base }: SolidScene): readonly number[] => {
  const side = sideOpposite(puzzle, base)
  return side ? piecesOfSide(puzzle, side) : []
}

export function countInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'count' }>): Words {
  return { hold: holdByMarks(scene), ...countClaims(scene, aim, lastPieces(scene)) }
}

/** Counting placed pieces and cycling three of them. */
export function countClaims(
  scene: SolidScene,
  aim: Extract<Aim, { kind: 'count' }>,
  pieces: readonly number[],
): Omit<Words, 'hold'> {
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
export function twistedAt(scene: SolidScene, piece: number): Claim {
  const { place } = placeIn(scene, piece)
  const lies = at(scene, piece)
  const isThere = lies.kind === 'pieceAt' && lies.place === place
  return {
    ...{ kind: 'twistedAt', piece: scene.puzzle.pieces[piece].id },
    ...(isThere || place === undefined ? {} : { place }),
  }
}

/** Where a piece lies after the step. */
const placeIn = (scene: SolidScene, piece: number): { readonly place?: string } => {
  const claim = then(scene, piece)
  return claim.kind === 'pieceAt' && claim.place !== undefined ? { place: claim.place } : {}
}

export function alignInSolid(scene: SolidScene): Words {
  const pieces = lastPieces(scene)
  return {
    lookFor: [{ kind: 'turnMissing' }],
    hold: holdByMarks(scene),
    check: [homeCount(scene, pieces, { must: 'home', layer: 'last' }, endOf(scene))],
    ifNot: otherwise('keepTurning'),
    hints: {
      nudge: [seekAmong(scene.puzzle, pieces, 'right')],
      pointer: [{ kind: 'turnMissing' }],
    },
    pieces: ids(scene.puzzle, pieces),
  }
}

export function caseInSolid(scene: SolidScene, aim: Extract<Aim, { kind: 'case' }>): Words {
  const { puzzle } = scene
  const isDirections = aim.reading === 'directions'
  const pieces = lastPieces(scene)
  const must = isDirections ? 'faced' : 'home'
  const which = { kind: 'caseIs', nth: aim.caseIndex + 1, of: aim.caseCount } as const
  return {
    lookFor: [
      homeCount(scene, pieces, { must, layer: 'last', lists: true }, heldIn(scene)),
      ...pieces.flatMap((p) => [at(scene, p), shows(scene, p)]),
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
  scene: SolidScene,
  aim: Extract<Aim, { kind: 'twist' }>,
  note: Said,
): Words {
  const { puzzle, end } = scene
  const { id } = puzzle.pieces[aim.piece]
  return {
    lookFor: [at(scene, aim.piece), twistedAt(scene, aim.piece)],
    hold: holdByMarks(scene),
    check: [{ kind: 'shows', piece: id, looks: looksOf(puzzle, aim.piece, end[aim.piece]) }],
    ifNot: otherwise('finishRun'),
    note: [...deceptions(scene, [aim.piece], 'home'), ...note],
    hints: {
      nudge: [seekAmong(puzzle, lastPieces(scene), 'twisted')],
      pointer: [at(scene, aim.piece)],
    },
    algorithm: aim.trigger,
    runs: { times: aim.runs, before: aim.runsBefore, total: aim.runsTotal },
    pieces: ids(puzzle, [aim.piece]),
    places: ids(puzzle, [placeOf(puzzle, end, aim.piece)]),
  }
}
