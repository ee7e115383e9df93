/** Schools of the solver's own that this process has been told of, each for puzzles on which it was proven. */
import type { School } from './school'

export interface OwnSchool {
  readonly puzzleId: string
  readonly school: School
}

const known = new Map<string, Map<string, School>>()

/** An id stands for one content for ever, so learning it again changes nothing. */
export function learnSchools(learned: readonly OwnSchool[]): void {
  for (const { puzzleId, school } of learned) {
    const own = known.get(puzzleId) ?? new Map<string, School>()
    known.set(puzzleId, own)
    if (!own.has(school.id)) own.set(school.id, school)
  }
}

/** Takes one of them out of the lists again. */
export function forgetSchool(puzzleId: string, id: string): void {
  known.get(puzzleId)?.delete(id)
}

export const ownSchoolsFor = (puzzleId: string): School[] => [
  ...(known.get(puzzleId)?.values() ?? []),
]

export const ownSchools = (): OwnSchool[] =>
  [...known].flatMap(([puzzleId, schools]) =>
    [...schools.values()].map((school) => ({ puzzleId, school })),
  )
