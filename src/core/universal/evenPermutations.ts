/**
 * Whether turns make all even permutations of an orbit's places while other orbits lie still. What the turns
 * that leave those still do to the orbit is a normal subgroup of what all turns do to it; the only ones of a
 * symmetric or alternating group are itself, the even permutations and, but for four places, nothing. So the
 * order of the subgroup decides, and where it is too small there are no three-cycles to be searched for.
 */
import { PermutationGroup } from '../analysis/permutationGroup'
import type { Puzzle } from '../puzzle/compile'
import { movesOf } from './moves'
import { workOf } from './orbitsAtWork'

/** @param still orbits that must lie still, by position in `workOf(puzzle).orbits` */
export function hasEvenPermutations(
  puzzle: Puzzle,
  own: number,
  still: readonly number[],
): boolean {
  const { orbits } = workOf(puzzle)
  const fixed = still.flatMap((o) => [...orbits[o].orbit.places])
  const { places } = orbits[own].orbit
  const all = [...fixed, ...places]
  const position = new Map(all.map((place, i) => [place, i]))
  const generators = movesOf(puzzle).map(({ effect }) =>
    Uint16Array.from(all, (q) => position.get(puzzle.place[24 * q + effect[q]]) as number),
  )
  // The chain keeps the places of the others one by one first; from there on it is their stabiliser.
  const group = new PermutationGroup(all.length, generators, [...all.keys()], undefined, false)
  const even = places.reduce((product, _, i) => product * BigInt(i + 1), 1n) / 2n
  return group.orderFrom(fixed.length) >= even
}
