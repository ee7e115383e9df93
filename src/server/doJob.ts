/**
 * What is given to the queue, done: files are read, and what keeps a processor busy is left to a process of its own. How
 * far it is is said meanwhile, and that it is there; where nobody wants it any more it stops.
 */
import { definitionById } from '../core/catalog'
import { splitId } from '../core/catalog/setting'
import { BOUNDS } from '../core/plain'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { fail, ok, type Result } from '../core/result'
import type { OwnSchool } from '../core/schools/ownSchools'
import { importAlgorithms } from './algorithms'
import { asRequest } from './asking'
import { itemsOf } from './files/items'
import { BadFile, told, type Source } from './files/source'
import { ALIVE_MS, WITHOUT_PARTS, type HeavyKind, type JobKind } from './jobs'
import { importLog, type Say } from './logReading'
import { keptSchools } from './ownSchools'
import { allRows, FULL, isFull, rowsOf, transaction, type Queryable } from './pool'
import { whoAsks } from './profiles'
import { restore } from './restore'

/** How often a process says how far it is. */
const SAY_MS = 250

class Stopped extends Error {}

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

/** Does a piece from the queue, if it is still wanted. */
export async function doJob(id: string, takenBy: string, heavily?: HeavyWork): Promise<void> {
  const { rows } = await allRows.query<{
    profile_id: string
    kind: JobKind
    subject: string | null
    bytes: number
  }>(
    `update jobs set state = 'running', taken_by = $2, touched_at = clock_timestamp()
     where id = $1 and state = 'waiting' returning *`,
    [id, takenBy],
  )
  if (!rows[0]) return
  const { profile_id: profileId, kind, bytes, subject } = rows[0]
  let share = 0
  let isWanted = true
  const sayNow = async () => {
    const said = await rowsOf(profileId).query(
      `update jobs set share = $2, touched_at = clock_timestamp() where id = $1 and state = 'running'`,
      [id, share],
    )
    isWanted = said.rowCount === 1
  }
  let saidAt = performance.now()
  const say: Say = async (now) => {
    share = now
    if (isWanted && performance.now() - saidAt >= SAY_MS) {
      saidAt = performance.now()
      await sayNow()
    }
    if (!isWanted) throw new Stopped()
  }
  // A statement may take long, and nothing is said meanwhile. One that fails is said again.
  const alive = setInterval(() => void sayNow().catch(() => undefined), ALIVE_MS)
  /** Together with what is stored: either both are so, or none. */
  const end = async (value: unknown, client: Queryable) => {
    const { rows: ended } = (await client.query(
      `with ended as (
         update jobs set state = 'done', share = 1, result = $2
         where id = $1 and state = 'running' returning id), gone as (${WITHOUT_PARTS})
       select id from ended`,
      [id, JSON.stringify(ok(value))],
    )) as { rows: unknown[] }
    if (ended.length === 0) throw new Stopped()
  }
  try {
    const done = await asRequest(async () => {
      await whoAsks(profileId)
      const file = keptFile(profileId, id, bytes)
      if (kind === 'log') return importLog(profileId, file, say, end)
      if (kind === 'backup') return restore(file, say, end)
      if (kind === 'sequences') return readSequences(profileId, subject ?? '', file, say, end)
      const asked = await heavyAsked(profileId, kind, subject ?? '')
      const found = asked.ok && heavily ? await heavily(asked.value, say) : asked
      if (found.ok) await end(found.value, rowsOf(profileId))
      return found
    })
    if (!done.ok) await refuse(profileId, id, done)
  } catch (error) {
    if (error instanceof Stopped) return
    await refuse(
      profileId,
      id,
      isFull(error) ? FULL : fail('failed', 'It could not be done. Nothing was kept.'),
    )
    if (!isFull(error)) throw error
  } finally {
    clearInterval(alive)
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

const refuse = (profileId: string, id: string, result: Result<unknown>) =>
  rowsOf(profileId).query(
    `with ended as (update jobs set state = 'refused', result = $2
       where id = $1 and state = 'running' returning id)
     ${WITHOUT_PARTS}`,
    [id, JSON.stringify(result)],
  )

/** A file of sequences, which is short enough to come whole. */
async function readSequences(
  profileId: string,
  puzzleId: string,
  file: Source,
  say: Say,
  end: (count: number, client: Queryable) => Promise<void>,
): Promise<Result<number>> {
  try {
    return await transaction(profileId, async (client) => {
      let kept: Result<number> = fail('bad-file', 'The file is empty.', { field: 'file' })
      for await (const { value } of itemsOf(told(file, say).read(), SEQUENCES))
        kept = await importAlgorithms(profileId, puzzleId, value, client)
      if (kept.ok) await end(kept.value, client)
      return kept
    })
  } catch (error) {
    if (!(error instanceof BadFile)) throw error
    const where = error.line === undefined ? '' : `Line ${error.line}: `
    return fail('bad-file', `${where}${error.sentence}`, { field: error.field })
  }
}

const SEQUENCES = { opens: () => false, boundsOf: () => BOUNDS }

/** The file of a job, as it was put away; a job that is stopped meanwhile has none any more. */
const keptFile = (profileId: string, id: string, bytes: number): Source => ({
  bytes,
  async *read() {
    for (let [seq, read] = [0, 0]; read < bytes; seq++) {
      const { rows } = await rowsOf(profileId).query<{ bytes: Uint8Array }>(
        'select bytes from job_parts where job_id = $1 and seq = $2',
        [id, seq],
      )
      if (!rows[0]) throw new Stopped()
      read += rows[0].bytes.byteLength
      yield rows[0].bytes
    }
  },
})
