/** The invariants of a puzzle's turns, and whether those of a state lie in their span. */
import type { Puzzle } from '../puzzle/compile'
import { start, type State } from '../state'
import { frameOf } from './frame'
import { coordinatesFor, effectOfMove, isNothing, spanOf, vectorOf, type Span } from './invariants'
import { unseenChanges } from './lookAlikes'
import { moveOf, orbitsOf, type Orbit } from './orbits'

export interface Sums {
  readonly orbits: readonly Orbit[]
  readonly moduli: readonly number[]
  /** Of the single moves. */
  readonly turns: readonly (readonly number[])[]
  readonly span: Span
}

const known = new WeakMap<Puzzle, Sums>()

/** Of the turns of the frame. */
export function sumsOf(puzzle: Puzzle): Sums {
  const found = known.get(puzzle)
  if (found) return found
  const moves = frameOf(puzzle).turns.map((turn) => moveOf(puzzle, turn))
  const sums = sumsUnder(puzzle, orbitsOf(puzzle), moves)
  known.set(puzzle, sums)
  return sums
}

/** Of any moves that take places to places. */
export function sumsUnder(puzzle: Puzzle, orbits: readonly Orbit[], moves: readonly State[]): Sums {
  const moduli = coordinatesFor(orbits).map(({ modulus }) => modulus)
  const turns = moves.map((move) => vectorOfState(puzzle, { orbits }, move))
  return { orbits, moduli, turns, span: spanOf(turns, moduli) }
}

export const inSpan = ({ span }: Sums, vector: readonly number[]): boolean =>
  isNothing(span, vector)

export const vectorOfState = (
  puzzle: Puzzle,
  { orbits }: Pick<Sums, 'orbits'>,
  state: State,
): number[] =>
  vectorOf(
    orbits,
    orbits.map((orbit) => effectOfMove(puzzle, orbit, state)),
  )

const knownSeen = new WeakMap<Sums, Span>()

/** What the turns span together with all changes that are not seen. */
export function seenSpan(puzzle: Puzzle, sums: Sums = sumsOf(puzzle)): Span {
  const found = knownSeen.get(sums)
  if (found) return found
  const unseen = unseenChanges(puzzle).map(({ make }) =>
    vectorOfState(puzzle, sums, make(start(puzzle))),
  )
  const span = spanOf([...sums.turns, ...unseen], sums.moduli)
  knownSeen.set(sums, span)
  return span
}
