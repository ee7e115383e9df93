/** Benches that were left off: they stay in the log with their turns, and can be taken up again. */
import { fail, ok, type Result } from '../core/result'
import { rowsOf, transaction, type Queryable } from './pool'

/** The open bench of a copy, where something has been turned on it: nobody ends it without being asked. */
export interface RunningBench {
  readonly id: string
  readonly turns: number
}

/** How many turns were made and not taken back. */
const TURNS = `(select greatest(0, count(*) filter (where e.event->>'kind' = 'turn')
    - count(*) filter (where e.event->>'kind' = 'undo'))::int
  from bench_events e where e.session_id = s.id)`

export async function runningBench(
  profileId: string,
  copyId: string,
  client: Queryable = rowsOf(profileId),
): Promise<RunningBench | undefined> {
  const { rows } = await client.query(
    `select s.id, ${TURNS} as turns from bench_sessions s
     where s.profile_id = $1 and s.copy_id = $2 and s.status = 'open'
     order by s.created_at desc limit 1`,
    [profileId, copyId],
  )
  const [found] = rows as RunningBench[]
  return found && found.turns > 0 ? found : undefined
}

/** What came of opening a bench: it is open, or the solver is to be asked about the one that runs. */
export type Opened = { readonly bench: string } | { readonly running: RunningBench }

/** Leaves the open benches of a copy off: they stay in the log with their turns. */
export const leaveOff = (profileId: string, copyId: string, client: Queryable) =>
  client.query(
    `update bench_sessions s set status = 'aside', ended_at = now(), turns = ${TURNS}
     where s.profile_id = $1 and s.copy_id = $2 and s.status = 'open'`,
    [profileId, copyId],
  )

/** Takes a bench up again that was left off; the one that the copy has now is left off for it, if it may be. */
export function takeUp(
  profileId: string,
  sessionId: string,
  instead?: string,
): Promise<Result<Opened>> {
  return transaction(profileId, async (client) => {
    const { rows } = await client.query<{ copy_id: string }>(
      `select s.copy_id from bench_sessions s join copies c on c.id = s.copy_id
       where s.profile_id = $1 and s.id = $2 and s.status = 'aside' for update of c`,
      [profileId, sessionId],
    )
    if (!rows[0]) return fail('not-found', 'This bench is not left off any more.')
    const running = await runningBench(profileId, rows[0].copy_id, client)
    if (running && running.id !== instead) return ok({ running })
    await leaveOff(profileId, rows[0].copy_id, client)
    await client.query(
      `update bench_sessions set status = 'open', ended_at = null, turns = null, standing = null
       where id = $1`,
      [sessionId],
    )
    return ok({ bench: sessionId })
  })
}

/** A bench that was left off, for the log. */
export interface LeftOff {
  readonly id: string
  readonly copyName: string
  readonly puzzleId: string
  readonly school?: string
  readonly turns: number
  readonly endedAt: Date
}

/** The latest of them, where something was turned. */
export async function benchesLeftOff(profileId: string, limit: number): Promise<LeftOff[]> {
  const { rows } = await rowsOf(profileId).query<{
    id: string
    name: string
    puzzle_id: string
    school: string | null
    turns: number
    ended_at: Date
  }>(
    `select s.id, c.name, c.puzzle_id, s.school, s.turns, s.ended_at
     from bench_sessions s join copies c on c.id = s.copy_id
     where s.profile_id = $1 and s.status = 'aside' and s.turns > 0
     order by s.ended_at desc, s.id limit $2`,
    [profileId, limit],
  )
  return rows.map(({ id, name, puzzle_id, school, turns, ended_at }) => ({
    id,
    copyName: name,
    puzzleId: puzzle_id,
    ...(school === null ? {} : { school }),
    turns,
    endedAt: ended_at,
  }))
}

/** Why nothing more is turned on a bench, and where its copy stands now. */
export interface BenchEnd {
  readonly status: 'aside' | 'finished'
  readonly endedAt?: Date
  /** The open bench of the copy. */
  readonly now?: string
  /** The solve that it has led to. */
  readonly solve?: string
}

/** Undefined while it is open, or where it is not there any more. */
export async function benchEnd(
  profileId: string,
  sessionId: string,
): Promise<BenchEnd | undefined> {
  const { rows } = await rowsOf(profileId).query<{
    status: BenchEnd['status'] | 'open'
    ended_at: Date | null
    now: string | null
    solve: string | null
  }>(
    `select s.status, s.ended_at,
       (select o.id from bench_sessions o where o.copy_id = s.copy_id and o.status = 'open'
        order by o.created_at desc limit 1) as now,
       (select l.id from solves l where l.session_id = s.id) as solve
     from bench_sessions s where s.profile_id = $1 and s.id = $2`,
    [profileId, sessionId],
  )
  const [found] = rows
  if (!found || found.status === 'open') return undefined
  return {
    status: found.status,
    ...(found.ended_at ? { endedAt: found.ended_at } : {}),
    ...(found.now ? { now: found.now } : {}),
    ...(found.solve ? { solve: found.solve } : {}),
  }
}
