/** The invariants of a puzzle's turns, and whether those of a state lie in their span. */
import type { Puzzle } from '../puzzle/compile'
import type { State } from '../state'
import { frameOf } from './frame'
import { coordinatesFor, effectOfMove, spanSize, vectorOf } from './invariants'
import { moveOf, orbitsOf, type Orbit } from './orbits'

export interface Sums {
  readonly orbits: readonly Orbit[]
  readonly moduli: readonly number[]
  /** Of the single turns. */
  readonly turns: readonly (readonly number[])[]
  readonly size: bigint
}

const known = new WeakMap<Puzzle, Sums>()

export function sumsOf(puzzle: Puzzle): Sums {
  const found = known.get(puzzle)
  if (found) return found
  const orbits = orbitsOf(puzzle)
  const moduli = coordinatesFor(orbits).map(({ modulus }) => modulus)
  const turns = frameOf(puzzle).turns.map((turn) =>
    vectorOf(
      orbits,
      orbits.map((orbit) => effectOfMove(puzzle, orbit, moveOf(puzzle, turn))),
    ),
  )
  const sums = { orbits, moduli, turns, size: spanSize(turns, moduli) }
  known.set(puzzle, sums)
  return sums
}

export const inSpan = ({ turns, moduli, size }: Sums, vector: readonly number[]): boolean =>
  spanSize([...turns, vector], moduli) === size

export const vectorOfState = (puzzle: Puzzle, { orbits }: Sums, state: State): number[] =>
  vectorOf(
    orbits,
    orbits.map((orbit) => effectOfMove(puzzle, orbit, state)),
  )
