/**
 * Everything that one solver owns as one file (docs/backup-file.md): a list of the files that exist for its parts,
 * written piece by piece.
 */
import { exportAlgorithms, puzzlesWithAlgorithms } from './algorithms'
import { copyFile } from './exportCopy'
import { jsonLines } from './files/write'
import { ownPuzzlesInLog } from './exportLog'
import { writeJson } from './logFile'
import { inOneView, type Queryable } from './pool'
import { isSolver } from './named'
import { readSettings } from './profiles'
import { eachSolve } from './solves'

export const FORMAT = 'merry-lantern-backup'
export const VERSION = 1

/** The file; undefined if the solver is not there. */
export async function writeBackup(profileId: string): Promise<AsyncGenerator<string> | undefined> {
  if (!(await isSolver(profileId))) return undefined
  return inOneView(profileId, (client) => written(profileId, client))
}

async function* written(profileId: string, client: Queryable): AsyncGenerator<string> {
  const settings = await readSettings(profileId, client)
  const head = JSON.stringify({ format: FORMAT, version: VERSION, settings })
  const own = await client.query(
    'select id, definition from own_puzzles where profile_id = $1 order by id',
    [profileId],
  )
  yield `${head.slice(0, -1)},"puzzles":[\n`
  yield* jsonLines((own.rows as { definition: unknown }[]).map(({ definition }) => definition))
  const schools = await client.query(
    'select puzzle_id, school from own_schools where profile_id = $1 order by puzzle_id, id',
    [profileId],
  )
  yield '],"schools":[\n'
  yield* jsonLines(
    (schools.rows as { puzzle_id: string; school: unknown }[]).map(({ puzzle_id, school }) => ({
      puzzle: puzzle_id,
      school,
    })),
  )
  const { rows } = await client.query(
    'select id from copies where profile_id = $1 order by created_at, id',
    [profileId],
  )
  const copies = rows as { id: string }[]
  yield '],"copies":[\n'
  for (const [i, { id }] of copies.entries()) {
    if (i > 0) yield ',\n'
    yield* (await copyFile(profileId, id, client)) ?? []
  }
  // On which of the copies each solve of the log was made, because a log does not say it.
  const placeOf = new Map(copies.map(({ id }, i) => [id, i]))
  yield '],"solvedOn":['
  yield* jsonLines(places(profileId, placeOf, client))
  yield '],"log":'
  yield* writeJson(eachSolve(profileId, client), await ownPuzzlesInLog(profileId))
  yield ',"algorithms":[\n'
  yield* jsonLines(algorithms(profileId))
  yield ']}\n'
}

async function* places(
  profileId: string,
  placeOf: ReadonlyMap<string, number>,
  client: Queryable,
): AsyncGenerator<number | null> {
  await client.query(
    `declare places no scroll cursor for
     select copy_id from solves s where profile_id = $1 order by s.finished_at desc, s.id`,
    [profileId],
  )
  for (;;) {
    const { rows } = await client.query('fetch 5000 from places')
    if (rows.length === 0) return
    yield* (rows as { copy_id: string | null }[]).map(
      ({ copy_id }) => placeOf.get(copy_id ?? '') ?? null,
    )
  }
}

async function* algorithms(profileId: string): AsyncGenerator<unknown> {
  for (const id of await puzzlesWithAlgorithms(profileId))
    yield await exportAlgorithms(profileId, id)
}
