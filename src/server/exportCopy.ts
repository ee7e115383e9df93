/** A copy with all that was done with it, word for word as it is stored: also where it cannot be read. */
import { splitId } from '../core/catalog/setting'
import { pool } from './pool'

export async function exportCopy(profileId: string, id: string): Promise<unknown> {
  const { rows } = await pool().query(
    `select to_jsonb(c) - 'profile_id' as copy,
            (select o.definition from own_puzzles o
             where o.profile_id = c.profile_id and o.id = split_part(c.puzzle_id, '--', 1)) as puzzle,
            coalesce((
              select jsonb_agg(to_jsonb(e) - 'copy_id' order by e.happened_on, e.created_at)
              from care_entries e where e.copy_id = c.id
            ), '[]') as care,
            coalesce((
              select jsonb_agg(
                (to_jsonb(s) - 'profile_id' - 'standing') || jsonb_build_object('events', coalesce((
                  select jsonb_agg(e.event order by e.seq) from bench_events e where e.session_id = s.id
                ), '[]')) order by s.created_at)
              from bench_sessions s where s.copy_id = c.id
            ), '[]') as benches
     from copies c where c.profile_id = $1 and c.id = $2`,
    [profileId, id],
  )
  const [found] = rows as unknown[]
  return found && { format: 'merry-lantern-copy', version: 1, ...Object(found) }
}

/** A puzzle file as it is stored, readable or not. */
export async function exportPuzzle(profileId: string, id: string): Promise<unknown> {
  const { rows } = await pool().query<{ definition: unknown }>(
    'select definition from own_puzzles where profile_id = $1 and id = $2',
    [profileId, splitId(id).file],
  )
  return rows[0]?.definition
}
