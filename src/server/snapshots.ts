/** Benches taken up from snapshots: the latest events are replayed, not all of them. */
import { replay, type Bench } from '../core/coach/bench'
import { snapshotOf, type Snapshot } from '../core/coach/snapshot'
import type { Entry } from '../core/coach/rebase'
import { rowsOf, type Queryable } from './pool'
import { PROGRAM } from './program'

/** A snapshot is made after so many events, and one is used that lies so many back: those can be taken back. */
const EVERY = 500

/** A tail that is longer shows that snapshots are missing. */
const LONGEST = 3 * EVERY

/** What a bench is made of: a snapshot, and what happened since. */
export interface Tail {
  readonly snapshot?: Snapshot
  readonly entries: readonly Entry[]
}

/** How many events of a bench are stored; they are numbered without a gap. */
export async function countEvents(sessionId: string, client: Queryable): Promise<number> {
  const { rows } = await client.query(
    'select coalesce(max(seq) + 1, 0)::int as count from bench_events where session_id = $1',
    [sessionId],
  )
  return (rows[0] as { count: number }).count
}

/** The entries of a bench from a number on, in order. */
export async function entriesAfter(
  sessionId: string,
  after: number,
  client: Queryable,
): Promise<Entry[]> {
  const { rows } = await client.query(
    'select id, event from bench_events where session_id = $1 and seq >= $2 order by seq',
    [sessionId, after],
  )
  return rows as Entry[]
}

/** The same of a bench that is this solver's, in one question; undefined if it is not. */
export async function ownEntriesAfter(
  profileId: string,
  sessionId: string,
  after: number,
): Promise<Entry[] | undefined> {
  const { rows } = await rowsOf(profileId).query<Entry & { id: string | null }>(
    `select e.id, e.event from bench_sessions s
     left join bench_events e on e.session_id = s.id and e.seq >= $3
     where s.profile_id = $1 and s.id = $2 order by e.seq`,
    [profileId, sessionId, after],
  )
  return rows.length === 0 ? undefined : rows.filter(({ id }) => id !== null)
}

/** The newest snapshot that leaves enough to take back, and all entries since. */
export async function tailOf(sessionId: string, client: Queryable): Promise<Tail> {
  const { rows } = await client.query(
    `select snapshot from bench_snapshots
     where session_id = $1 and program = $2 and events <= $3 order by events desc limit 1`,
    [sessionId, PROGRAM, (await countEvents(sessionId, client)) - EVERY],
  )
  const snapshot = (rows[0] as { snapshot: Snapshot } | undefined)?.snapshot
  return { snapshot, entries: await entriesAfter(sessionId, snapshot?.events ?? 0, client) }
}

/** Everything that ever happened on the bench. */
export const wholeOf = async (sessionId: string, client: Queryable): Promise<Tail> => ({
  entries: await entriesAfter(sessionId, 0, client),
})

/** Whether one is due, now that a bench has so many events and had fewer before. */
export const isDue = (before: number, now: number): boolean =>
  Math.floor(before / EVERY) < Math.floor(now / EVERY)

/** Keeps where a bench stands after so many events; older ones than can be needed go. */
export async function keepSnapshot(
  sessionId: string,
  bench: Bench,
  events: number,
  client: Queryable,
): Promise<void> {
  await client.query(
    `insert into bench_snapshots (session_id, events, program, snapshot) values ($1, $2, $3, $4)
     on conflict (session_id, events) do update set program = excluded.program, snapshot = excluded.snapshot`,
    [sessionId, events, PROGRAM, JSON.stringify(snapshotOf(bench, events))],
  )
  await client.query('delete from bench_snapshots where session_id = $1 and events < $2', [
    sessionId,
    events - LONGEST,
  ])
}

/**
 * Replays a tail on the bench with which it begins. Where it is long, because snapshots are missing, one is kept
 * for the next time.
 *
 * @throws BeyondSnapshot where the tail takes back turns from before its snapshot
 */
export async function replayed(
  sessionId: string,
  from: Bench,
  tail: Tail,
  client: Queryable,
): Promise<Bench> {
  const events = tail.entries.map(({ event }) => event)
  const early = events.length - EVERY
  if (early <= LONGEST - EVERY) return replay(from, events)
  const before = replay(from, events.slice(0, early))
  const bench = replay(before, events.slice(early))
  await keepSnapshot(sessionId, before, (tail.snapshot?.events ?? 0) + early, client)
  return bench
}
