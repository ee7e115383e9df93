/**
 * What takes a while: given to the queue, done by whoever is free (doJob.ts), watched and stopped from the page.
 */
import { fail, ok, type Problem, type Result } from '../core/result'
import { LONGEST_FILE, sizeWords } from './limits'
import { rowsOf } from './pool'
import { give } from './queue'

export const IMPORT_KINDS = ['log', 'backup', 'sequences'] as const
export type ImportKind = (typeof IMPORT_KINDS)[number]
/**
 * The kind of import that an address names, and of sequences the puzzle.
 *
 * @param asked `kind`, and `puzzle` where the kind is `sequences`
 */
export function importKindOf(
  asked: URLSearchParams,
): Result<[kind: ImportKind, subject: string | undefined]> {
  const kind = IMPORT_KINDS.find((each) => each === asked.get('kind'))
  if (!kind)
    return fail('bad-input', `kind must be one of ${IMPORT_KINDS.join(', ')}.`, { field: 'kind' })
  if (kind !== 'sequences') return ok([kind, undefined])
  const puzzle = asked.get('puzzle') ?? ''
  return puzzle !== '' && puzzle.length <= 80
    ? ok([kind, puzzle])
    : fail('bad-input', 'puzzle names no puzzle.', { field: 'puzzle' })
}

/** `tables`: what is derived of a puzzle; `survey`: a school over many scrambles. */
export type HeavyKind = 'tables' | 'survey'
export type JobKind = ImportKind | HeavyKind

const QUEUE_OF = {
  log: 'imports',
  backup: 'imports',
  sequences: 'imports',
  tables: 'heavy',
  survey: 'heavy',
} as const

export interface Job {
  readonly id: string
  readonly kind: JobKind
  /** A puzzle's id, or that and a school's. */
  readonly subject?: string
  readonly state: 'arriving' | 'waiting' | 'running' | 'done' | 'refused' | 'stopped'
  /** How much is done, 0 to 1. */
  readonly share: number
  /** Of a log, or of sequences: how many are new. Of a backup: the id of the solver. Else what was worked out. */
  readonly value?: unknown
  readonly problem?: Problem
}

/** A process that says nothing for so long has died. */
const SILENCE_S = 10
/** How often a process says that it is there. */
export const ALIVE_MS = 2000

/** What comes in of a file. */
export interface Arriving {
  readonly pieces: AsyncIterable<Uint8Array>
  /** How many bytes were announced, where that was said. */
  readonly announced?: number
}

/** Pieces are put away when they are so long, in bytes. */
const PIECE = 1_000_000

/**
 * Takes a file, piece by piece, and gives it to the queue; the id by which to ask for it is returned. A file that is not
 * whole (its sender goes away, or sends less than was announced) is thrown away.
 *
 * @param subject of sequences: the puzzle's id
 */
export async function beginImport(
  profileId: string,
  kind: ImportKind,
  { pieces, announced }: Arriving,
  subject?: string,
): Promise<Result<string>> {
  // Whoever waited for those has heard what came of them.
  await rowsOf(profileId).query(
    `delete from jobs where profile_id = $1 and kind = any($2)
       and state in ('done', 'refused', 'stopped') and touched_at < now() - interval '1 day'`,
    [profileId, IMPORT_KINDS],
  )
  const tooLarge = fail('too-large', `The file is larger than ${sizeWords(LONGEST_FILE)}.`, {
    field: 'file',
  })
  if ((announced ?? 0) > LONGEST_FILE) return tooLarge
  const id = await insert(profileId, kind, 'arriving', subject)
  let isTaken = false
  // It may come slowly: it is there as long as whoever takes it is.
  const alive = setInterval(() => void touch(profileId, id).catch(() => undefined), ALIVE_MS)
  try {
    const bytes = await putAway(profileId, id, pieces)
    if (bytes === undefined) return tooLarge
    if (announced !== undefined && bytes !== announced)
      return fail(
        'cut-off',
        `Only ${bytes} of ${announced} bytes of the file arrived. Nothing was imported.`,
        { field: 'file' },
      )
    const { rowCount } = await rowsOf(profileId).query(
      `update jobs set state = 'waiting', bytes = $2, touched_at = clock_timestamp()
       where id = $1 and state = 'arriving'`,
      [id, bytes],
    )
    if (rowCount !== 1) return INTERRUPTED
    await give(QUEUE_OF[kind], { id })
    isTaken = true
    return ok(id)
  } finally {
    clearInterval(alive)
    if (!isTaken) await rowsOf(profileId).query('delete from jobs where id = $1', [id])
  }
}

const touch = (profileId: string, id: string) =>
  rowsOf(profileId).query('update jobs set touched_at = clock_timestamp() where id = $1', [id])

/** How many bytes it was; undefined if it was too many. */
async function putAway(
  profileId: string,
  id: string,
  pieces: AsyncIterable<Uint8Array>,
): Promise<number | undefined> {
  let [bytes, seq, length] = [0, 0, 0]
  let gathered: Uint8Array[] = []
  const flush = async () => {
    if (length === 0) return
    await rowsOf(profileId).query(
      'insert into job_parts (job_id, seq, bytes) values ($1, $2, $3)',
      [id, seq++, Buffer.concat(gathered)],
    )
    gathered = []
    length = 0
  }
  for await (const piece of pieces) {
    bytes += piece.byteLength
    if (bytes > LONGEST_FILE) return undefined
    gathered.push(piece)
    length += piece.byteLength
    if (length >= PIECE) await flush()
  }
  await flush()
  return bytes
}

/** Gives a heavy piece to the queue, unless it is under way already; the id by which to ask for it is returned. */
export async function beginHeavy(
  profileId: string,
  kind: HeavyKind,
  subject: string,
): Promise<string> {
  const known = await jobUnderWay(profileId, kind, subject)
  if (known) return known.id
  await rowsOf(profileId).query(
    'delete from jobs where profile_id = $1 and kind = $2 and subject = $3',
    [profileId, kind, subject],
  )
  const id = await insert(profileId, kind, 'waiting', subject)
  await give(QUEUE_OF[kind], { id })
  return id
}

async function insert(
  profileId: string,
  kind: JobKind,
  state: 'arriving' | 'waiting',
  subject?: string,
): Promise<string> {
  const { rows } = await rowsOf(profileId).query<{ id: string }>(
    'insert into jobs (profile_id, kind, state, subject) values ($1, $2, $3, $4) returning id',
    [profileId, kind, state, subject ?? null],
  )
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
  const { rows } = await rowsOf(profileId).query<JobRow>(
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
  const { rows } = await rowsOf(profileId).query<JobRow>(
    `select ${COLUMNS} from jobs
     where profile_id = $1 and kind = $2 and state in ('arriving', 'waiting', 'running')
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
  const { rows } = await rowsOf(profileId).query<JobRow>(
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

/** Ended, one way or another: what there was of its file is of no use any more. */
export const WITHOUT_PARTS = 'delete from job_parts where job_id in (select id from ended)'

const endSilent = (profileId: string) =>
  rowsOf(profileId).query(
    `with ended as (
       update jobs set state = 'refused', result = $2
       where profile_id = $1 and state in ('arriving', 'running')
         and touched_at < clock_timestamp() - make_interval(secs => $3)
       returning id)
     ${WITHOUT_PARTS}`,
    [profileId, JSON.stringify(INTERRUPTED), SILENCE_S],
  )

/** Stops it, if it has not ended yet: then nothing of the file is kept. */
export async function stopJob(profileId: string, id: string): Promise<boolean> {
  const { rows } = await rowsOf(profileId).query<{ count: number }>(
    `with ended as (
       update jobs set state = 'stopped'
       where profile_id = $1 and id = $2 and state in ('arriving', 'waiting', 'running')
       returning id), gone as (${WITHOUT_PARTS})
     select count(*)::int as count from ended`,
    [profileId, id],
  )
  return rows[0].count === 1
}
