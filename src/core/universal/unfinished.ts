/** What is not yet as in the finished puzzle: pieces outside its shape, sums that are not nothing. */
import { coordinatesFor } from '../analysis/invariants'
import { vectorOfState } from '../analysis/sums'
import { homeFilled } from '../analysis/who'
import { baseKind } from '../phrases'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import { workOf } from './orbitsAtWork'

interface Held {
  readonly state: State
  readonly frame: Rotation
}

/** Pieces that lie in no place of the finished shape. */
export const outOf = (puzzle: Puzzle, { state, frame }: Held): number[] =>
  puzzle.pieces.flatMap(({ faces }, p) =>
    faces.length > 0 && homeFilled(puzzle, frame, p, state[p]) === undefined ? [p] : [],
  )

/** Kinds whose sums are off: exchanges, twists, and single pieces that are turned in place. */
export function sumsOff(puzzle: Puzzle, { state, frame }: Held) {
  const { sums, columns } = workOf(puzzle)
  const vector = vectorOfState(
    puzzle,
    sums,
    state.map((r) => multiply(INVERSE[frame], r)),
  )
  const coordinates = coordinatesFor(sums.orbits)
  const off = columns.filter((c) => vector[c] !== 0).map((c) => coordinates[c])
  const isSingle = (orbit: number) => sums.orbits[orbit].places.length === 1
  const kinds = (each: typeof off) => [
    ...new Set(each.map(({ orbit }) => baseKind(puzzle.pieces[sums.orbits[orbit].places[0]].kind))),
  ]
  const of = (what: string) => off.filter((each) => !isSingle(each.orbit) && each.what === what)
  const turned = off.filter(({ orbit }) => isSingle(orbit))
  return {
    odd: kinds(of('parity')),
    twisted: kinds(of('twist')),
    turned: turned.length,
    turnedKinds: kinds(turned),
  }
}
