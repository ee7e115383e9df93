/** What is derived of puzzles of a solver's own: worked out once by a process that has the time, then sent along. */
import type { DerivedTables } from '../core/analysis/learnedTables'
import { TABLES_EDITION } from '../core/universal/tables'
import { beginHeavy, jobsAbout } from './jobs'

interface Made {
  readonly edition: number
  readonly tables: DerivedTables
}

/**
 * The tables of a puzzle of this solver's own; undefined while they are not there yet, or cannot be made. They are asked
 * for if they are not, or if an earlier program has made them.
 */
export async function tablesOf(
  profileId: string,
  puzzleId: string,
): Promise<DerivedTables | undefined> {
  const [job] = await jobsAbout(profileId, 'tables', [puzzleId])
  const made = job?.state === 'done' ? (job.value as Made) : undefined
  if (made?.edition === TABLES_EDITION) return made.tables
  const isInterrupted = job?.problem?.code === 'interrupted'
  if (!job || made || isInterrupted) await beginHeavy(profileId, 'tables', puzzleId)
  return undefined
}
