/** A school as it is taught on one puzzle: what the puzzle never asks for is left out. */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { anchorsOf } from '../analysis/anchors'
import type { Puzzle } from '../puzzle/compile'
import { baseKind } from '../words'
import type { Fact, School } from './school'

const known = new WeakMap<Puzzle, WeakMap<School, School>>()

export function taught(puzzle: Puzzle, school: School): School {
  const schools = known.get(puzzle) ?? new WeakMap<School, School>()
  known.set(puzzle, schools)
  const found = schools.get(school)
  if (found) return found
  const stages = school.stages.filter(({ asks }) => asks === undefined || holds(puzzle, asks))
  const own = stages.length === school.stages.length ? school : { ...school, stages }
  schools.set(school, own)
  schools.set(own, own)
  return own
}

/** Whether a turn of some centre in its place can be seen. */
const doCentresTell = (puzzle: Puzzle): boolean =>
  anchorsOf(puzzle).some(
    (p) =>
      baseKind(puzzle.pieces[p].kind) === 'centre' && lookAlikesOf(puzzle).inPlace[p].looks > 1,
  )

function holds(puzzle: Puzzle, fact: Fact): boolean {
  switch (fact) {
    case 'centres tell':
      return doCentresTell(puzzle)
    case 'no centre tells':
      return !doCentresTell(puzzle)
  }
}
