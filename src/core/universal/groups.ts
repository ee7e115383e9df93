/** The groups of places that are worked on one after another, with their names. */
import { groupNames, type GroupName } from '../analysis/groupNames'
import type { Puzzle } from '../puzzle/compile'
import { workOf } from './orbitsAtWork'

const groups = new WeakMap<Puzzle, ReadonlyMap<number, GroupName>>()

/** The name of the places of an orbit of the work, among all of them. */
export function groupOf(puzzle: Puzzle, orbit: number): GroupName {
  let found = groups.get(puzzle)
  if (!found) {
    const { orbits } = workOf(puzzle)
    const several = [...orbits.keys()].filter((o) => orbits[o].orbit.places.length > 1)
    const named = groupNames(
      puzzle,
      several.map((o) => orbits[o].orbit.places),
    )
    found = new Map(several.map((o, i) => [o, named[i]]))
    groups.set(puzzle, found)
  }
  const own = found.get(orbit)
  if (!own) throw new Error('a single place has no name as a group')
  return own
}
