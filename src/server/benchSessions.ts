/** Bench sessions: where they began, and their append-only list of events. */
import { puzzleById } from '../core/catalog'
import { admitAll } from '../core/coach/admit'
import { BeyondSnapshot, openBench, replay, type Bench, type BenchEvent } from '../core/coach/bench'
import type { Entry } from '../core/coach/rebase'
import { benchFrom } from '../core/coach/snapshot'
import type { Puzzle } from '../core/puzzle/compile'
import { fail, ok, type Result } from '../core/result'
import type { Variant } from '../core/schools/school'
import { readState } from '../core/state'
import { leaveOff, runningBench, type Opened } from './leftOff'
import { rowsOf, transaction, type Queryable } from './pool'
import {
  countEvents,
  entriesAfter,
  isDue,
  keepSnapshot,
  tailOf,
  wholeOf,
  type Tail,
} from './snapshots'

export interface BenchSession {
  readonly id: string
  readonly copyId: string
  readonly school?: string
  readonly variant: Variant
  readonly startState: string
  readonly scramble: string
  readonly seed?: number
  readonly laidBy: 'scramble' | 'colours' | 'pieces'
  readonly status: 'open' | 'finished' | 'aside'
  readonly createdAt: Date
}

/** As it is stored. */
export interface SessionRow {
  id: string
  copy_id: string
  school: string | null
  variant: Variant
  start_state: string
  scramble: string
  seed: number | null
  laid_by: 'scramble' | 'colours'
  status: 'open' | 'finished' | 'aside'
  created_at: Date
}

export const sessionFromRow = (row: SessionRow): BenchSession => ({
  id: row.id,
  copyId: row.copy_id,
  school: row.school ?? undefined,
  variant: row.variant,
  startState: row.start_state,
  scramble: row.scramble,
  seed: row.seed ?? undefined,
  laidBy: row.laid_by,
  status: row.status,
  createdAt: row.created_at,
})

export type NewSession = Pick<
  BenchSession,
  'copyId' | 'school' | 'variant' | 'startState' | 'scramble' | 'seed' | 'laidBy'
>

/**
 * Opens a session. Where the copy has a bench on which something was turned it is left off, if it is the one that the
 * solver was asked about; else nothing is done.
 *
 * @param instead the bench that may be left off for it
 */
export function openSession(
  profileId: string,
  given: NewSession,
  instead?: string,
): Promise<Opened> {
  return transaction(profileId, async (client) => {
    // One after another, so that what was asked about is what is left off.
    await client.query('select 1 from copies where profile_id = $1 and id = $2 for update', [
      profileId,
      given.copyId,
    ])
    const running = await runningBench(profileId, given.copyId, client)
    if (running && running.id !== instead) return { running }
    await leaveOff(profileId, given.copyId, client)
    const { rows } = await client.query<{ id: string }>(
      `insert into bench_sessions
         (profile_id, copy_id, school, variant, start_state, scramble, seed, laid_by)
       values ($1, $2, $3, $4, $5, $6, $7, $8) returning id`,
      [
        profileId,
        given.copyId,
        given.school ?? null,
        JSON.stringify(given.variant),
        given.startState,
        given.scramble,
        given.seed ?? null,
        given.laidBy,
      ],
    )
    return { bench: rows[0].id }
  })
}

export async function findSession(
  profileId: string,
  id: string,
): Promise<BenchSession | undefined> {
  const { rows } = await rowsOf(profileId).query<SessionRow>(
    'select * from bench_sessions where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rows[0] && sessionFromRow(rows[0])
}

/** The newest open session, for the navigation. */
export async function latestSession(profileId: string): Promise<BenchSession | undefined> {
  const { rows } = await rowsOf(profileId).query<SessionRow>(
    `select * from bench_sessions where profile_id = $1 and status = 'open'
     order by created_at desc limit 1`,
    [profileId],
  )
  return rows[0] && sessionFromRow(rows[0])
}

export const eventsOf = async (profileId: string, sessionId: string): Promise<BenchEvent[]> =>
  (await entriesAfter(sessionId, 0, rowsOf(profileId))).map(({ event }) => event)

/** What a page that knows `after` entries hears when it sends some: all entries after those, in order. */
export interface Appended {
  /** The event is left out where the page has sent it itself. */
  readonly entries: readonly (Entry | Pick<Entry, 'id'>)[]
  /** Whether everything sent is stored. If not, the page must put what it sent behind the rest, and send again. */
  readonly stored: boolean
}

/** More events no bench takes; every one is replayed when the bench is opened. */
export const MOST_EVENTS = 20_000

/**
 * Stores the entries of a page behind the `after` that it knows. What is stored already (a request sent
 * again) is no fault. If others have stored something meanwhile, nothing is stored and the page is told.
 * Every new event is made on the engine first; one that does not fit is refused, and with it the batch.
 */
export async function appendEntries(
  profileId: string,
  sessionId: string,
  after: number,
  sent: readonly Entry[],
): Promise<Result<Appended>> {
  const quick = await appendQuickly(profileId, sessionId, after, sent)
  if (quick) return ok(quick)
  let reached:
    { readonly before: number; readonly count: number; readonly bench: Bench } | undefined
  const appended = await transaction<Result<Appended>>(profileId, async (client) => {
    const session = await client.query<SessionRow & { puzzle_id: string }>(
      `select s.*, c.puzzle_id from bench_sessions s join copies c on c.id = s.copy_id
       where s.profile_id = $1 and s.id = $2 for update of s`,
      [profileId, sessionId],
    )
    const [row] = session.rows
    if (!row) return fail('not-found', 'This bench is not there any more.')
    // Counted only now that the session is held: others may have stored while this one waited.
    const count = await countEvents(sessionId, client)
    if (after > count)
      return fail('ahead', 'This page has seen more than the database holds. Reload it.', {
        field: 'after',
      })
    const own = new Map(sent.map((entry) => [entry.id, entry]))
    const known = await client.query<{ id: string }>(
      'select id from bench_events where session_id = $1 and id = any($2)',
      [sessionId, [...own.keys()]],
    )
    const isKnown = new Set(known.rows.map(({ id }) => id))
    const fresh = [...own.values()].filter(({ id }) => !isKnown.has(id))
    const later = (await entriesAfter(sessionId, after, client)).map((entry) =>
      own.has(entry.id) ? { id: entry.id } : entry,
    )
    if (fresh.length === 0) return ok({ entries: later, stored: true })
    if (row.status !== 'open') return fail('closed', 'This solve had been ended before.')
    if (later.some((entry) => 'event' in entry)) return ok({ entries: later, stored: false })
    if (count + fresh.length > MOST_EVENTS)
      return fail('too-many', `A bench takes ${MOST_EVENTS} events. Lay this position out anew.`)
    const events = fresh.map(({ event }) => event)
    const at = { puzzleId: row.puzzle_id, startState: row.start_state, sessionId, count }
    const next = await admitted(at, events, client)
    if (!next.ok) return next
    await client.query(
      `insert into bench_events (session_id, seq, id, event)
       select $1, $2 + ordinality - 1, (value->>'id')::uuid, value->'event'
       from jsonb_array_elements($3::jsonb) with ordinality`,
      [sessionId, count, JSON.stringify(fresh)],
    )
    reached = { before: count, count: count + fresh.length, bench: next.value }
    if (isDue(count, reached.count))
      await keepSnapshot(sessionId, next.value, reached.count, client)
    return ok({ entries: [...later, ...fresh.map(({ id }) => ({ id }))], stored: true })
  })
  // Only now is it stored: had the database gone before, the same number could come to mean other events.
  // And where a snapshot was just kept, the bench is taken up from it next time, so that it does not grow for ever.
  if (reached && isDue(reached.before, reached.count)) standing.delete(sessionId)
  else if (reached) remember(sessionId, reached.count, reached.bench)
  return appended
}

/**
 * What nearly every turn is: the page knows everything that is stored, and so does this process. Then one
 * statement stores it; undefined, and nothing is stored, wherever that is not so, or the bench is not this solver's.
 */
export async function appendQuickly(
  profileId: string,
  sessionId: string,
  after: number,
  sent: readonly Entry[],
): Promise<Appended | undefined> {
  const known = standing.get(sessionId)
  const count = after + sent.length
  if (known?.count !== after || isDue(after, count) || count > MOST_EVENTS) return undefined
  const next = admitAll(
    known.bench,
    sent.map(({ event }) => event),
  )
  if (!next.ok) return undefined
  try {
    const { rowCount } = await rowsOf(profileId).query(
      `with held as (
         select id from bench_sessions
         where profile_id = $1 and id = $2 and status = 'open' for update)
       insert into bench_events (session_id, seq, id, event)
       select held.id, $3 + ordinality - 1, (value->>'id')::uuid, value->'event'
       from held cross join jsonb_array_elements($4::jsonb) with ordinality
       where (select coalesce(max(seq) + 1, 0) from bench_events where session_id = $2) = $3`,
      [profileId, sessionId, after, JSON.stringify(sent)],
    )
    if (rowCount !== sent.length) return undefined
  } catch (error) {
    // Somebody else was there first, with this number or with these very entries.
    if ((error as { code?: unknown }).code === UNIQUE_VIOLATION) return undefined
    throw error
  }
  remember(sessionId, count, next.value)
  return { entries: sent.map(({ id }) => ({ id })), stored: true }
}

const UNIQUE_VIOLATION = '23505'

/** Benches as they stand after so many events: rows are never changed, so the number says which. */
const standing = new Map<string, { count: number; bench: Bench }>()
const MOST_REMEMBERED = 300

function remember(sessionId: string, count: number, bench: Bench): void {
  standing.delete(sessionId)
  standing.set(sessionId, { count, bench })
  const [oldest] = standing.keys()
  if (standing.size > MOST_REMEMBERED && oldest !== undefined) standing.delete(oldest)
}

interface At {
  readonly puzzleId: string
  readonly startState: string
  readonly sessionId: string
  readonly count: number
}

/** The bench after new events, each made on the engine; taken up from where it is known, or else from a snapshot. */
async function admitted(
  at: At,
  events: readonly BenchEvent[],
  client: Queryable,
): Promise<Result<Bench>> {
  const known = standing.get(at.sessionId)
  const bench = known?.count === at.count ? ok(known.bench) : await benchAt(at, tailOf, client)
  const next = bench.ok ? admitAll(bench.value, events) : bench
  if (next.ok || next.problem.code !== 'beyond') return next
  const whole = await benchAt(at, wholeOf, client)
  return whole.ok ? admitAll(whole.value, events) : whole
}

async function benchAt(
  at: At,
  read: (sessionId: string, client: Queryable) => Promise<Tail>,
  client: Queryable,
): Promise<Result<Bench>> {
  const puzzle = puzzleById(at.puzzleId)
  if (!puzzle.ok) return puzzle
  const tail = await read(at.sessionId, client)
  const from = takenUp(puzzle.value, at.startState, tail)
  if (!from.ok) return tail.snapshot ? benchAt(at, wholeOf, client) : from
  try {
    return ok(
      replay(
        from.value,
        tail.entries.map(({ event }) => event),
      ),
    )
  } catch (error) {
    if (error instanceof BeyondSnapshot) return benchAt(at, wholeOf, client)
    throw error
  }
}

/** The bench with which a tail begins: the snapshot's, or the start. */
export function takenUp(puzzle: Puzzle, startState: string, { snapshot }: Tail): Result<Bench> {
  if (snapshot) return benchFrom(puzzle, snapshot)
  const state = readState(puzzle, startState)
  return state.ok ? ok(openBench(puzzle, state.value)) : state
}

export async function changeSchool(
  profileId: string,
  sessionId: string,
  school: string,
  variant: Variant,
): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    `update bench_sessions set school = $3, variant = $4
     where profile_id = $1 and id = $2 and status = 'open'`,
    [profileId, sessionId, school, JSON.stringify(variant)],
  )
  return rowCount === 1
}

export async function removeSession(profileId: string, sessionId: string): Promise<boolean> {
  const { rowCount } = await rowsOf(profileId).query(
    'delete from bench_sessions where profile_id = $1 and id = $2',
    [profileId, sessionId],
  )
  standing.delete(sessionId)
  return rowCount === 1
}
