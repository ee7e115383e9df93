/** Files that take a while to read: given to the queue, read by whoever is free, watched and stopped from the page. */
import { fail, ok, type Problem, type Result } from '../core/result'
import { asRequest } from './asking'
import { restore } from './backup'
import { importSolves, readLogFile, type Say } from './logFile'
import { pool, type Queryable } from './pool'
import { whoAsks } from './profiles'
import { give } from './queue'

export type ImportKind = 'log' | 'backup'

export interface Import {
  readonly id: string
  readonly kind: ImportKind
  readonly state: 'waiting' | 'running' | 'done' | 'refused' | 'stopped'
  /** How much is done, 0 to 1. */
  readonly share: number
  /** Of a log: how many solves are new. Of a backup: the id of the solver. */
  readonly value?: unknown
  readonly problem?: Problem
}

/** A process that says nothing for so long has died. */
const SILENCE_S = 60
/** How often a process says how far it is. */
const SAY_MS = 250

class Stopped extends Error {}

/** Gives a file to the queue; the id by which to ask for it is returned. */
export async function beginImport(
  profileId: string,
  kind: ImportKind,
  file: string,
): Promise<string> {
  // Whoever waited for those has heard what came of them.
  await pool().query(
    `delete from imports where profile_id = $1 and state in ('done', 'refused', 'stopped')
       and touched_at < now() - interval '1 day'`,
    [profileId],
  )
  const { rows } = await pool().query<{ id: string }>(
    'insert into imports (profile_id, kind, file) values ($1, $2, $3) returning id',
    [profileId, kind, file],
  )
  await give('imports', { id: rows[0].id })
  return rows[0].id
}

interface ImportRow {
  id: string
  kind: ImportKind
  state: Import['state']
  share: number
  result: Result<unknown> | null
}

const COLUMNS = 'id, kind, state, share, result'

const fromRow = ({ result, ...row }: ImportRow): Import => ({
  ...row,
  ...(result === null ? {} : result.ok ? { value: result.value } : { problem: result.problem }),
})

/** How far it is; undefined if it is not this solver's. */
export async function findImport(profileId: string, id: string): Promise<Import | undefined> {
  await endSilent(profileId)
  const { rows } = await pool().query<ImportRow>(
    `select ${COLUMNS} from imports where profile_id = $1 and id = $2`,
    [profileId, id],
  )
  return rows[0] && fromRow(rows[0])
}

/** The latest of a kind that is under way. */
export async function importUnderWay(
  profileId: string,
  kind: ImportKind,
): Promise<Import | undefined> {
  await endSilent(profileId)
  const { rows } = await pool().query<ImportRow>(
    `select ${COLUMNS} from imports
     where profile_id = $1 and kind = $2 and state in ('waiting', 'running')
     order by created_at desc limit 1`,
    [profileId, kind],
  )
  return rows[0] && fromRow(rows[0])
}

const SILENT = fail(
  'interrupted',
  'The program was stopped while it read the file. Nothing was imported; try it again.',
)

const endSilent = (profileId: string) =>
  pool().query(
    `update imports set state = 'refused', file = null, result = $2
     where profile_id = $1 and state = 'running'
       and touched_at < clock_timestamp() - make_interval(secs => $3)`,
    [profileId, JSON.stringify(SILENT), SILENCE_S],
  )

/** Stops it, if it has not ended yet: then nothing of the file is kept. */
export async function stopImport(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await pool().query(
    `update imports set state = 'stopped', file = null
     where profile_id = $1 and id = $2 and state in ('waiting', 'running')`,
    [profileId, id],
  )
  return rowCount === 1
}

/** Reads a file from the queue, if it is still wanted. */
export async function doImport(id: string, takenBy: string): Promise<void> {
  const { rows } = await pool().query<{ profile_id: string; kind: ImportKind; file: string }>(
    `update imports set state = 'running', taken_by = $2, touched_at = clock_timestamp()
     where id = $1 and state = 'waiting' returning profile_id, kind, file`,
    [id, takenBy],
  )
  if (!rows[0]) return
  const { profile_id: profileId, kind, file } = rows[0]
  let saidAt = performance.now()
  const say: Say = async (share) => {
    if (performance.now() - saidAt < SAY_MS) return
    saidAt = performance.now()
    const said = await pool().query(
      `update imports set share = $2, touched_at = clock_timestamp() where id = $1 and state = 'running'`,
      [id, share],
    )
    if (said.rowCount === 0) throw new Stopped()
  }
  /** Together with what is stored: either both are so, or none. */
  const end = async (value: unknown, client: Queryable) => {
    const ended = await client.query(
      `update imports set state = 'done', share = 1, file = null, result = $2
       where id = $1 and state = 'running'`,
      [id, JSON.stringify(ok(value))],
    )
    if (ended.rowCount === 0) throw new Stopped()
  }
  try {
    const read = await asRequest(async () => {
      await whoAsks(profileId)
      return kind === 'log' ? readLog(profileId, file, say, end) : restore(file, say, end)
    })
    if (!read.ok) await refuse(id, read)
  } catch (error) {
    if (error instanceof Stopped) return
    await refuse(id, fail('failed', 'The file could not be read. Nothing was imported.'))
    throw error
  }
}

const refuse = (id: string, result: Result<unknown>) =>
  pool().query(`update imports set state = 'refused', file = null, result = $2 where id = $1`, [
    id,
    JSON.stringify(result),
  ])

async function readLog(
  profileId: string,
  file: string,
  say: Say,
  end: (value: unknown, client: Queryable) => Promise<void>,
): Promise<Result<number>> {
  const read = await readLogFile(file, say)
  return read.ok ? importSolves(profileId, read.value, end) : read
}
