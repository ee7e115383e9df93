/** What tests do in their database themselves: a solver of their own, copies of their own, damage. */
import { randomUUID } from 'node:crypto'
import { Client } from 'pg'
import { databaseUrl } from './server'

export async function sql<Row extends object>(
  text: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  const client = new Client({ connectionString: databaseUrl() })
  await client.connect()
  try {
    return (await client.query(text, [...values])).rows as Row[]
  } finally {
    await client.end()
  }
}

export interface TestSolver {
  readonly id: string
  readonly nickname: string
}

/** The demo's rows once more for another solver, each under an id that follows from both. */
const CLONE = [
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

/** A solver with the demo on the shelf and in the log, for one test alone. */
export async function newSolver(): Promise<TestSolver> {
  const client = new Client({ connectionString: databaseUrl() })
  await client.connect()
  try {
    const id = randomUUID()
    const nickname = `Gull ${id.slice(0, 6)}`
    await client.query('begin')
    const demo = await client.query<{ id: string }>(
      `select id from profiles where nickname = 'Gull'`,
    )
    await client.query('insert into profiles (id, nickname) values ($1, $2)', [id, nickname])
    for (const text of CLONE) await client.query(text, [id, demo.rows[0].id])
    await client.query('commit')
    return { id, nickname }
  } finally {
    await client.end()
  }
}

export interface OwnCopy {
  readonly id: string
  readonly name: string
}

/** A copy after one that stands on the solver's shelf. */
export async function addOwnCopy(solverId: string, of: string): Promise<OwnCopy> {
  const name = `${of} ${randomUUID().slice(0, 5)}`
  const [row] = await sql<{ id: string }>(
    `insert into copies (profile_id, puzzle_id, name, scheme)
     select profile_id, puzzle_id, $2, scheme from copies where name = $1 and profile_id = $3
     returning id`,
    [of, name, solverId],
  )
  if (!row) throw new Error(`there is no ${of}`)
  return { id: row.id, name }
}
