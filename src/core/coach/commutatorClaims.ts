/** What is claimed of steps that bring pieces home by commutators, equal ones for each other. All read off the states. */
import { areNeighbours, capMeant } from '../analysis/caps'
import { lookClassesOf } from '../analysis/lookAlikes'
import { circlesInOrder, isLocked } from '../analysis/circles'
import { homeFilled, sideName } from '../analysis/who'
import type { Claim, Said } from '../claims/claim'
import { average, dot, subtract } from '../geometry/vector'
import { rotate, type Rotation, type Vector } from '../rotation'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import type { Stage } from '../schools/school'
import type { Aim } from './aim'
import { isFilled } from './goal'
import {
  endOf,
  goesTo,
  holdOfScene,
  homeCount,
  ids,
  pieceAt,
  seekAmong,
  type PieceScene,
} from './pieceClaims'
import { MOST_LINES, type RouteLine, type StepClaims } from './route'

type Commutator = Extract<Aim, { kind: 'commutator' }>

export function commutatorClaims(
  scene: PieceScene,
  { of, parts }: Commutator,
): StepClaims & { readonly check: Said; readonly note?: Said } {
  const { puzzle, state, frame, end, endFrame } = scene
  const come = of.filter(
    (home) => !isFilled(puzzle, state, home, frame) && isFilled(puzzle, end, home, endFrame),
  )
  const lines = come.slice(0, MOST_LINES).map((home) => lineTo(scene, home))
  const places = ids(puzzle, of)
  const more = come.length - lines.length
  const owner = ownerOf(puzzle, scene.scheme, scene.stage)
  const note: Said = [
    ...(scene.isFirst && owner?.what === 'circle' ? [circleClaim(scene, owner.side)] : []),
    ...(more > 0 ? [{ kind: 'othersComeHome', of: places, count: more } as const] : []),
    ...lastCapClaims(scene, of),
    ...(isBlock(scene, come) ? [{ kind: 'asOneBlock' } as const] : []),
    ...(parts ? [{ kind: 'commutator', first: parts[0], second: parts[1] } as const] : []),
  ]
  return {
    lookFor: [{ kind: 'comeHome', of: places, count: come.length }],
    lines,
    hold: holdOfScene(scene),
    check: [
      {
        ...homeCount(scene, of, { must: 'home', layer: 'base' }, endOf(scene)),
        ...(owner ? { whose: owner.what, side: owner.side.name } : {}),
      } as Claim,
    ],
    ...(note.length > 0 ? { note } : {}),
    hints: { nudge: [seekAmong(puzzle, of, 'coming')], pointer: lines[0].says },
    pieces: lines.map(({ piece }) => piece),
    places: lines.flatMap(({ to }) => (to === undefined ? [] : [to])),
  }
}

/** Of the last cap's pieces, where no cap has room any more: which change places. */
function lastCapClaims(scene: PieceScene, of: readonly number[]): Claim[] {
  const { puzzle, stage, frame } = scene
  if (stage.technique.kind !== 'commutator' || stage.technique.select.cap !== 'last') return []
  const { classOf, classSize } = lookClassesOf(puzzle)
  // Equal ones can be taken for each other, and then there is more than one answer.
  if (of.some((p) => classSize[classOf[p]] > 1)) return []
  const rounds = roundsOf(scene, of)
  const lengths = rounds.map(({ length }) => length)
  const told = { kind: 'rounds', of: ids(puzzle, of), lengths } as const
  if (!['2', '3', '2,2'].includes(lengths.join())) return []
  if (lengths.join() !== '2' || puzzle.pieces[rounds[0][0]].kind !== 'cap corner') return [told]
  const [a, b] = rounds[0].map((home) => centreOf(puzzle, home, frame))
  const step = subtract(a, b)
  // In a cap of three by three.
  return [{ ...told, how: Math.round(dot(step, step)) === 4 ? 'beside' : 'across' }]
}

/** Pieces that change places among each other, by their homes. */
function roundsOf({ puzzle, state, frame }: PieceScene, of: readonly number[]): number[][] {
  const to = new Map<number, number>()
  for (const p of of) {
    const at = homeFilled(puzzle, frame, p, state[p])
    if (at !== undefined && at !== p) to.set(p, at)
  }
  const rounds: number[][] = []
  const seen = new Set<number>()
  for (const first of to.keys()) {
    if (seen.has(first)) continue
    const round: number[] = []
    for (let at: number | undefined = first; at !== undefined && !seen.has(at); at = to.get(at)) {
      seen.add(at)
      round.push(at)
    }
    rounds.push(round)
  }
  return rounds.sort((a, b) => a.length - b.length)
}

const centreOf = ({ pieces }: Puzzle, home: number, frame: Rotation): Vector =>
  rotate(frame, average(pieces[home].cells))

/** What lies in a home at the end: of equal pieces any. */
const fillerOf = ({ puzzle, end, endFrame }: PieceScene, home: number): number =>
  [...end].findIndex((r, p) => homeFilled(puzzle, endFrame, p, r) === home)

function lineTo(scene: PieceScene, home: number): RouteLine {
  const { puzzle, state, frame } = scene
  const piece = fillerOf(scene, home)
  return {
    piece: puzzle.pieces[piece].id,
    to: puzzle.pieces[home].id,
    says: [pieceAt(puzzle, frame, state, piece), goesTo(scene, piece)],
  }
}

/** Whether what comes home has lain together before as it does then. */
function isBlock(scene: PieceScene, come: readonly number[]): boolean {
  const { puzzle, state, end } = scene
  if (puzzle.definition.mechanism.kind === 'capped' && !areBeside(puzzle, come)) return false
  const [first, ...others] = come.map((home) => fillerOf(scene, home))
  return (
    others.length > 0 && others.every((p) => state[p] === state[first] && end[p] === end[first])
  )
}

/** Whether some homes hang together, cell by cell. */
function areBeside(puzzle: Puzzle, homes: readonly number[]): boolean {
  const [first, ...rest] = homes
  const reached = [first]
  for (const home of reached)
    for (const other of rest)
      if (!reached.includes(other) && areNeighbours(puzzle, home, other)) reached.push(other)
  return reached.length === homes.length
}

/** The side whose circle or cap a stage is about. */
interface Owner {
  readonly name: string
  readonly what: 'circle' | 'cap'
  readonly side: Direction
}

export function ownerOf(
  puzzle: Puzzle,
  scheme: Scheme,
  { technique }: Pick<Stage, 'technique'>,
): Owner | undefined {
  const { circle, cap } =
    technique.kind === 'commutator' || technique.kind === 'blocks' ? technique.select : {}
  const side =
    circle !== undefined
      ? circlesInOrder(puzzle)[circle - 1]
      : cap !== undefined
        ? capMeant(puzzle, cap)
        : undefined
  return (
    side && {
      name: sideName(puzzle, scheme, side),
      what: circle === undefined ? 'cap' : 'circle',
      side,
    }
  )
}

/** What a circle does when its own side turns: why it is done when it is. */
const circleClaim = ({ puzzle }: PieceScene, side: Direction): Claim => ({
  ...{ kind: 'circle', side: side.name },
  ...(isLocked(puzzle, side) ? { isLocked: true } : {}),
})
