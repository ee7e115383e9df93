/** Bench sessions: where they began, and their append-only list of events. */
import type { BenchEvent } from '../core/coach/bench'
import type { Variant } from '../core/schools/school'
import { pool, transaction } from './pool'

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

interface SessionRow {
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

const fromRow = (row: SessionRow): BenchSession => ({
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

/** Opens a session; another open one of the same copy is put aside, not lost. */
export function openSession(profileId: string, given: NewSession): Promise<string> {
  return transaction(async (client) => {
    await client.query(
      `update bench_sessions set status = 'aside', ended_at = now()
       where profile_id = $1 and copy_id = $2 and status = 'open'`,
      [profileId, given.copyId],
    )
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
    return rows[0].id
  })
}

export async function findSession(
  profileId: string,
  id: string,
): Promise<BenchSession | undefined> {
  const { rows } = await pool().query<SessionRow>(
    'select * from bench_sessions where profile_id = $1 and id = $2',
    [profileId, id],
  )
  return rows[0] && fromRow(rows[0])
}

/** The newest open session, for the navigation. */
export async function latestSession(profileId: string): Promise<BenchSession | undefined> {
  const { rows } = await pool().query<SessionRow>(
    `select * from bench_sessions where profile_id = $1 and status = 'open'
     order by created_at desc limit 1`,
    [profileId],
  )
  return rows[0] && fromRow(rows[0])
}

export async function eventsOf(sessionId: string): Promise<BenchEvent[]> {
  const { rows } = await pool().query<{ event: BenchEvent }>(
    'select event from bench_events where session_id = $1 order by seq',
    [sessionId],
  )
  return rows.map(({ event }) => event)
}

/**
 * Adds events from position `from` on. Events that are stored already (a repeated request) are left
 * as they are; a gap is refused. The number of stored events is returned, or undefined if there is
 * no such open session.
 */
export function appendEvents(
  profileId: string,
  sessionId: string,
  from: number,
  events: readonly BenchEvent[],
): Promise<number | undefined> {
  return transaction(async (client) => {
    const session = await client.query(
      `select 1 from bench_sessions where profile_id = $1 and id = $2 and status = 'open' for update`,
      [profileId, sessionId],
    )
    if (session.rowCount === 0) return undefined
    const { rows } = await client.query<{ count: number }>(
      'select count(*)::int as count from bench_events where session_id = $1',
      [sessionId],
    )
    const stored = rows[0].count
    if (from > stored) return stored
    const fresh = events.slice(stored - from)
    if (fresh.length > 0)
      await client.query(
        `insert into bench_events (session_id, seq, event)
         select $1, $2 + ordinality - 1, value
         from jsonb_array_elements($3::jsonb) with ordinality`,
        [sessionId, stored, JSON.stringify(fresh)],
      )
    return stored + fresh.length
  })
}

export async function changeSchool(
  profileId: string,
  sessionId: string,
  school: string,
  variant: Variant,
): Promise<boolean> {
  const { rowCount } = await pool().query(
    `update bench_sessions set school = $3, variant = $4
     where profile_id = $1 and id = $2 and status = 'open'`,
    [profileId, sessionId, school, JSON.stringify(variant)],
  )
  return rowCount === 1
}
