/** The schools of puzzles: those that are written, a solver's own, and those that are derived. */
import { puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { fits } from './fits'
import { ownSchools, ownSchoolsFor } from './ownSchools'
import { pieceByPiece, UNIVERSAL_ID, UNIVERSAL_NAME } from './piece-by-piece'
import type { School } from './school'
import { taught } from './taught'
import { SCHOOLS } from './written'

export { SCHOOLS }
import { shortest, SHORTEST_ID, SHORTEST_NAME } from './shortest'

/** The schools of a puzzle: those written for it, and those that are derived where they serve. */
export function schoolsFor(puzzleId: string): School[] {
  const puzzle = puzzleById(puzzleId)
  return puzzle.ok ? schoolsOf(puzzle.value) : []
}

/** The same for any puzzle, shipped or not: schools are written for what a definition says. */
export function schoolsOf(puzzle: Puzzle): School[] {
  const own = SCHOOLS.filter((school) => fits(school, puzzle.definition)).map((school) =>
    taught(puzzle, school),
  )
  const kept = ownSchoolsFor(puzzle.definition.id).map((school) => taught(puzzle, school))
  // In the order in which people would choose them: what can be learned comes before what cannot.
  return [...own, ...kept, pieceByPiece(puzzle), shortest(puzzle)].filter(
    (school) => school !== undefined,
  )
}

/** What a school is called, for lists over many puzzles. */
export const schoolName = (id: string): string | undefined =>
  SCHOOLS.find((school) => school.id === id)?.name ??
  ownSchools().find(({ school }) => school.id === id)?.school.name ??
  { [UNIVERSAL_ID]: UNIVERSAL_NAME, [SHORTEST_ID]: SHORTEST_NAME }[id]

export function schoolNamed(puzzleId: string, schoolId: string): Result<School> {
  return schoolAmong(schoolsFor(puzzleId), schoolId)
}

export function schoolAmong(schools: readonly School[], schoolId: string): Result<School> {
  const found = schools.find(({ id }) => id === schoolId)
  if (found) return ok(found)
  const known = schools.map(({ id }) => id)
  const offer = known.length > 0 ? `It has ${known.join(', ')}.` : 'It has no school yet.'
  return fail('unknown-school', `No school for this puzzle has the id ${schoolId}. ${offer}`)
}
