/**
 * What takes a while: given to the queue, done by whoever is free, watched and stopped from the page. Files are read
 * by every server; what keeps a processor busy is left to processes that do nothing else.
 */
import { definitionById } from '../core/catalog'
import { splitId } from '../core/catalog/setting'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { fail, ok, type Problem, type Result } from '../core/result'
import type { OwnSchool } from '../core/schools/ownSchools'
import { asRequest } from './asking'
import { restore } from './backup'
import { importSolves, readLogFile, type Say } from './logFile'
import { keptSchools } from './ownSchools'
import { pool, type Queryable } from './pool'
import { whoAsks } from './profiles'
import { give } from './queue'

export type ImportKind = 'log' | 'backup'
/** `tables`: what is derived of a puzzle; `survey`: a school over many scrambles. */
export type HeavyKind = 'tables' | 'survey'
export type JobKind = ImportKind | HeavyKind

/** Does a heavy piece, not in the process's own thread; what it posts is heard while it goes on. */
export type HeavyWork = (
  asked: HeavyAsked,
  say: (share: number) => Promise<void>,
) => Promise<Result<unknown>>

export interface HeavyAsked {
  readonly kind: HeavyKind
  readonly puzzleId: string
  readonly schoolId?: string
  readonly definition: PuzzleDefinition
  /** Of the solver's own, for this puzzle. */
  readonly schools: readonly OwnSchool[]
}

const QUEUE_OF = { log: 'imports', backup: 'imports', tables: 'heavy', survey: 'heavy' } as const

export interface Job {
  readonly id: string
  readonly kind: JobKind
  /** A puzzle's id, or that and a school's. */
  readonly subject?: string
  readonly state: 'waiting' | 'running' | 'done' | 'refused' | 'stopped'
  /** How much is done, 0 to 1. */
  readonly share: number
  /** Of a log: how many solves are new. Of a backup: the id of the solver. Else what was worked out. */
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
    `delete from jobs where profile_id = $1 and kind = any($2)
       and state in ('done', 'refused', 'stopped') and touched_at < now() - interval '1 day'`,
    [profileId, ['log', 'backup']],
  )
  return begin(profileId, kind, { file })
}

/** Gives a heavy piece to the queue, unless it is under way already; the id by which to ask for it is returned. */
export async function beginHeavy(
  profileId: string,
  kind: HeavyKind,
  subject: string,
): Promise<string> {
  const known = await jobUnderWay(profileId, kind, subject)
  if (known) return known.id
  await pool().query('delete from jobs where profile_id = $1 and kind = $2 and subject = $3', [
    profileId,
    kind,
    subject,
  ])
  return begin(profileId, kind, { subject })
}

async function begin(
  profileId: string,
  kind: JobKind,
  { file = null, subject = null }: { file?: string | null; subject?: string | null },
): Promise<string> {
  const { rows } = await pool().query<{ id: string }>(
    'insert into jobs (profile_id, kind, file, subject) values ($1, $2, $3, $4) returning id',
    [profileId, kind, file, subject],
  )
  await give(QUEUE_OF[kind], { id: rows[0].id })
  return rows[0].id
}

interface JobRow {
  id: string
  kind: JobKind
  subject: string | null
  state: Job['state']
  share: number
  result: Result<unknown> | null
}

const COLUMNS = 'id, kind, subject, state, share, result'

const fromRow = ({ result, subject, ...row }: JobRow): Job => ({
  ...row,
  ...(subject === null ? {} : { subject }),
  ...(result === null ? {} : result.ok ? { value: result.value } : { problem: result.problem }),
})

/** How far it is; undefined if it is not this solver's. */
export async function findJob(profileId: string, id: string): Promise<Job | undefined> {
  await endSilent(profileId)
  const { rows } = await pool().query<JobRow>(
    `select ${COLUMNS} from jobs where profile_id = $1 and id = $2`,
    [profileId, id],
  )
  return rows[0] && fromRow(rows[0])
}

/** The latest of a kind, and of one subject if it is given, that is under way. */
export async function jobUnderWay(
  profileId: string,
  kind: JobKind,
  subject?: string,
): Promise<Job | undefined> {
  await endSilent(profileId)
  const { rows } = await pool().query<JobRow>(
    `select ${COLUMNS} from jobs
     where profile_id = $1 and kind = $2 and state in ('waiting', 'running')
       and ($3::text is null or subject = $3)
     order by created_at desc limit 1`,
    [profileId, kind, subject ?? null],
  )
  return rows[0] && fromRow(rows[0])
}

/** Those of a kind whose subjects these are, one of each. */
export async function jobsAbout(
  profileId: string,
  kind: HeavyKind,
  subjects: readonly string[],
): Promise<Job[]> {
  await endSilent(profileId)
  const { rows } = await pool().query<JobRow>(
    `select distinct on (subject) ${COLUMNS} from jobs
     where profile_id = $1 and kind = $2 and subject = any($3) order by subject, created_at desc`,
    [profileId, kind, subjects],
  )
  return rows.map(fromRow)
}

/** Asked for again by whoever still wants it. */
export const INTERRUPTED = fail(
  'interrupted',
  'The program was stopped in the middle of it. Nothing was kept; try it again.',
)

const endSilent = (profileId: string) =>
  pool().query(
    `update jobs set state = 'refused', file = null, result = $2
     where profile_id = $1 and state = 'running'
       and touched_at < clock_timestamp() - make_interval(secs => $3)`,
    [profileId, JSON.stringify(INTERRUPTED), SILENCE_S],
  )

/** Stops it, if it has not ended yet: then nothing of the file is kept. */
export async function stopJob(profileId: string, id: string): Promise<boolean> {
  const { rowCount } = await pool().query(
    `update jobs set state = 'stopped', file = null
     where profile_id = $1 and id = $2 and state in ('waiting', 'running')`,
    [profileId, id],
  )
  return rowCount === 1
}

/** Does a piece from the queue, if it is still wanted. */
export async function doJob(id: string, takenBy: string, heavily?: HeavyWork): Promise<void> {
  const { rows } = await pool().query<JobRow & { profile_id: string; file: string | null }>(
    `update jobs set state = 'running', taken_by = $2, touched_at = clock_timestamp()
     where id = $1 and state = 'waiting' returning *`,
    [id, takenBy],
  )
  if (!rows[0]) return
  const { profile_id: profileId, kind, file, subject } = rows[0]
  let saidAt = performance.now()
  const say: Say = async (share) => {
    if (performance.now() - saidAt < SAY_MS) return
    saidAt = performance.now()
    const said = await pool().query(
      `update jobs set share = $2, touched_at = clock_timestamp() where id = $1 and state = 'running'`,
      [id, share],
    )
    if (said.rowCount === 0) throw new Stopped()
  }
  /** Together with what is stored: either both are so, or none. */
  const end = async (value: unknown, client: Queryable) => {
    const ended = await client.query(
      `update jobs set state = 'done', share = 1, file = null, result = $2
       where id = $1 and state = 'running'`,
      [id, JSON.stringify(ok(value))],
    )
    if (ended.rowCount === 0) throw new Stopped()
  }
  try {
    const done = await asRequest(async () => {
      await whoAsks(profileId)
      if (kind === 'log') return readLog(profileId, file ?? '', say, end)
      if (kind === 'backup') return restore(file ?? '', say, end)
      const asked = await heavyAsked(profileId, kind, subject ?? '')
      const found = asked.ok && heavily ? await heavily(asked.value, say) : asked
      if (found.ok) await end(found.value, pool())
      return found
    })
    if (!done.ok) await refuse(id, done)
  } catch (error) {
    if (error instanceof Stopped) return
    await refuse(id, fail('failed', 'It could not be done. Nothing was kept.'))
    throw error
  }
}

/** What a process needs to know that knows nothing of the solver. */
async function heavyAsked(
  profileId: string,
  kind: HeavyKind,
  subject: string,
): Promise<Result<HeavyAsked>> {
  const [puzzleId, schoolId] = subject.split(' ')
  const definition = definitionById(splitId(puzzleId).file)
  if (!definition) return fail('not-found', 'The puzzle is not there any more.')
  const schools = await keptSchools(profileId, puzzleId)
  return ok({ kind, puzzleId, definition, schools, ...(schoolId ? { schoolId } : {}) })
}

const refuse = (id: string, result: Result<unknown>) =>
  pool().query(`update jobs set state = 'refused', file = null, result = $2 where id = $1`, [
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
