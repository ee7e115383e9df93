/** Schools over many scrambles: worked out by a process that has the time, for as long as the program is the same. */
import { beginHeavy, jobsAbout, type Job } from './jobs'
import { PROGRAM } from './program'

/** Another program may plan otherwise, so what an earlier one came to is not shown. */
const subjectOf = (puzzleId: string, schoolId: string): string =>
  `${puzzleId} ${schoolId} ${PROGRAM}`

export const beginSurvey = (
  profileId: string,
  puzzleId: string,
  schoolId: string,
): Promise<string> => beginHeavy(profileId, 'survey', subjectOf(puzzleId, schoolId))

/** The latest of each of these schools, by the school's id. */
export async function surveysOf(
  profileId: string,
  puzzleId: string,
  schoolIds: readonly string[],
): Promise<Record<string, Job>> {
  const subjects = new Map(schoolIds.map((id) => [subjectOf(puzzleId, id), id]))
  const found = await jobsAbout(profileId, 'survey', [...subjects.keys()])
  return Object.fromEntries(found.map((job) => [subjects.get(job.subject ?? ''), job]))
}
