/** Schools of the solver's own that this process has been told of, each for puzzles on which it was proven. */
import { isInReach, reachOfSchool } from '../catalog/reach'
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

/** Whether one was learned, be it in reach or not. */
export const isSchoolLearned = (puzzleId: string, id: string): boolean =>
  known.get(puzzleId)?.has(id) ?? false

export const ownSchoolsFor = (puzzleId: string): School[] =>
  [...(known.get(puzzleId)?.values() ?? [])].filter(({ id }) =>
    isInReach('schools', reachOfSchool(puzzleId, id)),
  )

export const ownSchools = (): OwnSchool[] =>
  [...known.keys()].flatMap((puzzleId) =>
    ownSchoolsFor(puzzleId).map((school) => ({ puzzleId, school })),
  )
