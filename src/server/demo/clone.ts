/** What one solver has, once more for another: for tests and measurements, so that they begin where the demo ends. */
import { randomUUID } from 'node:crypto'
import type { Queryable } from '../pool'

/** Every row gets an id that follows from the old one and its new owner. */
const ROWS = [
  `insert into settings (profile_id, value)
   select $1::uuid, value from settings where profile_id = $2`,
  `insert into copies (id, profile_id, puzzle_id, name, scheme, remarks, created_at)
   select md5($1::text || id)::uuid, $1::uuid, puzzle_id, name, scheme, remarks, created_at
   from copies where profile_id = $2`,
  `insert into care_entries (copy_id, happened_on, kind, note, created_at)
   select md5($1::text || e.copy_id)::uuid, e.happened_on, e.kind, e.note, e.created_at
   from care_entries e join copies c on c.id = e.copy_id where c.profile_id = $2`,
  `insert into bench_sessions (id, profile_id, copy_id, school, variant, start_state, scramble, seed,
     laid_by, status, created_at)
   select md5($1::text || id)::uuid, $1::uuid, md5($1::text || copy_id)::uuid, school, variant, start_state,
     scramble, seed, laid_by, status, created_at
   from bench_sessions where profile_id = $2`,
  `insert into solves (id, profile_id, copy_id, puzzle_id, school, variant, solver, start_state, scramble,
     solution, finished_at, elapsed_ms, turn_count, quarter_count, slips, hints, remark)
   select md5($1::text || id)::uuid, $1::uuid, md5($1::text || copy_id)::uuid, puzzle_id, school, variant, solver,
     start_state, scramble, solution, finished_at, elapsed_ms, turn_count, quarter_count, slips, hints, remark
   from solves where profile_id = $2`,
  `insert into solve_stages (solve_id, ordinal, stage_id, name, turn_count, elapsed_ms)
   select md5($1::text || t.solve_id)::uuid, t.ordinal, t.stage_id, t.name, t.turn_count, t.elapsed_ms
   from solve_stages t join solves s on s.id = t.solve_id where s.profile_id = $2`,
]

/** Benches come without what happened on them. The id of the new solver is returned. */
export async function cloneSolver(
  client: Queryable,
  fromId: string,
  nickname: string,
): Promise<string> {
  const id = randomUUID()
  await client.query('insert into profiles (id, nickname) values ($1, $2)', [id, nickname])
  for (const text of ROWS) await client.query(text, [id, fromId])
  return id
}
