/** A copy with all that was done with it, word for word as it is stored: also where it cannot be read. */
import { splitId } from '../core/catalog/setting'
import { jsonLines } from './files/write'
import { inOneView, rowsOf, type Queryable } from './pool'

/** Events that are read at a time; a plan among them has some tens of thousands of characters. */
const AT_A_TIME = 200

/** The file of a copy, piece by piece; undefined if it is not there. */
export async function copyFile(
  profileId: string,
  id: string,
  client: Queryable,
): Promise<AsyncGenerator<string> | undefined> {
  const { rows } = (await client.query(
    `select to_jsonb(c) - 'profile_id' as copy,
            (select o.definition from own_puzzles o
             where o.profile_id = c.profile_id and o.id = split_part(c.puzzle_id, '--', 1)) as puzzle
     from copies c where c.profile_id = $1 and c.id = $2`,
    [profileId, id],
  )) as { rows: { copy: unknown; puzzle: unknown }[] }
  return rows[0] && written(rows[0], id, client)
}

/** The same in a view of its own; undefined if it is not there. */
export async function exportCopy(
  profileId: string,
  id: string,
): Promise<AsyncGenerator<string> | undefined> {
  const { rowCount } = await rowsOf(profileId).query(
    'select 1 from copies where profile_id = $1 and id = $2',
    [profileId, id],
  )
  if (rowCount !== 1) return undefined
  return inOneView(profileId, async function* (client) {
    yield* (await copyFile(profileId, id, client)) ?? []
  })
}

async function* written(
  { copy, puzzle }: { copy: unknown; puzzle: unknown },
  id: string,
  client: Queryable,
): AsyncGenerator<string> {
  const care = await client.query(
    `select to_jsonb(e) - 'copy_id' as entry from care_entries e where e.copy_id = $1
     order by e.happened_on, e.created_at, e.id`,
    [id],
  )
  const benches = await client.query(
    `select id, to_jsonb(s) - 'profile_id' - 'standing' as bench from bench_sessions s
     where s.copy_id = $1 order by s.created_at, s.id`,
    [id],
  )
  const head = JSON.stringify({ format: 'merry-lantern-copy', version: 1, copy, puzzle })
  yield `${head.slice(0, -1)},"care":[`
  yield* jsonLines((care.rows as { entry: unknown }[]).map(({ entry }) => entry))
  yield '],"benches":['
  for (const [i, each] of (benches.rows as { id: string; bench: object }[]).entries()) {
    yield `${i === 0 ? '' : ','}\n${JSON.stringify(each.bench).slice(0, -1)},"events":[`
    yield* jsonLines(eachEvent(each.id, client))
    yield ']}'
  }
  yield ']}'
}

/** The events of a bench in order, some at a time. */
async function* eachEvent(sessionId: string, client: Queryable): AsyncGenerator<unknown> {
  for (let from = -1; ;) {
    const { rows } = (await client.query(
      `select seq, event from bench_events where session_id = $1 and seq > $2
       order by seq limit ${AT_A_TIME}`,
      [sessionId, from],
    )) as { rows: { seq: number; event: unknown }[] }
    const last = rows.at(-1)
    if (!last) return
    yield* rows.map(({ event }) => event)
    from = last.seq
  }
}

/** A puzzle file as it is stored, readable or not. */
export async function exportPuzzle(profileId: string, id: string): Promise<unknown> {
  const { rows } = await rowsOf(profileId).query<{ definition: unknown }>(
    'select definition from own_puzzles where profile_id = $1 and id = $2',
    [profileId, splitId(id).file],
  )
  return rows[0]?.definition
}
