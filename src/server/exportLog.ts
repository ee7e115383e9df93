/** The log of a solver as a file, however long it is. */
import { puzzlesOf, writeCsv, writeJson } from './logFile'
import { inOneView, rowsOf } from './pool'
import { eachSolve } from './solves'

/** Puzzles that the log has solves of. */
async function solvedPuzzles(profileId: string): Promise<string[]> {
  const { rows } = await rowsOf(profileId).query<{ puzzle_id: string }>(
    'select distinct puzzle_id from solves where profile_id = $1',
    [profileId],
  )
  return rows.map(({ puzzle_id }) => puzzle_id)
}

/** The puzzles of the solver's own that stand in the log. */
export const ownPuzzlesInLog = async (profileId: string) =>
  puzzlesOf(profileId, await solvedPuzzles(profileId))

export async function exportLog(
  profileId: string,
  kind: 'json' | 'csv',
): Promise<AsyncGenerator<string>> {
  const puzzles = kind === 'json' ? await ownPuzzlesInLog(profileId) : []
  return inOneView(profileId, (client) => {
    const solves = eachSolve(profileId, client)
    return kind === 'json' ? writeJson(solves, puzzles) : writeCsv(solves)
  })
}
