/** Behind the SQL: a statement that forgets whose rows it means sees none of anybody else's. */
import { Client } from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { must } from '../core/result'
import { loadDemo } from './demo/load'
import { firstProfile } from './named'
import { allRows, inOneView, rowsOf, transaction, type Queryable } from './pool'
import { makeSolver } from './profiles'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let gull: string
let kelp: string
let tables: string[]

beforeAll(async () => {
  discard = await freshDatabase('own_rows')
  await loadDemo()
  gull = await firstProfile()
  kelp = must(await makeSolver('Kelp'))
  const ours = rowsOf(gull)
  await ours.query(
    `insert into bench_events (session_id, seq, event) select id, 0, '{}' from bench_sessions`,
  )
  await ours.query(
    `insert into bench_snapshots select id, 1, 'this', '{}' from bench_sessions limit 1`,
  )
  await ours.query(
    `insert into own_puzzles (profile_id, id, definition) values ($1, 'own-1', '{}')`,
    [gull],
  )
  await ours.query(
    `insert into own_schools (profile_id, puzzle_id, id, school) values ($1, 'cube-3', 'own-1', '{}')`,
    [gull],
  )
  await ours.query(
    `insert into algorithms (profile_id, puzzle_id, turns) values ($1, 'cube-3', 'R U')`,
    [gull],
  )
  await ours.query(
    `with made as (insert into jobs (profile_id, kind) values ($1, 'log') returning id) select 1 from made`,
    [gull],
  )
  await ours.query(`insert into job_parts (job_id, seq, bytes) select id, 0, '' from jobs`)
  const found = await allRows.query<{ name: string }>(
    `select table_name as name from information_schema.tables
     where table_schema = 'public' and table_type = 'BASE TABLE' and table_name <> 'migrations'
     order by 1`,
  )
  tables = found.rows.map(({ name }) => name)
}, 120_000)
afterAll(() => discard())

const count = async (client: Queryable, table: string): Promise<number> =>
  ((await client.query(`select count(*)::int as count from ${table}`)).rows[0] as { count: number })
    .count

const column = async (table: string): Promise<string> =>
  (
    await allRows.query<{ name: string }>(
      `select column_name as name from information_schema.columns
       where table_schema = 'public' and table_name = $1 order by ordinal_position limit 1`,
      [table],
    )
  ).rows[0].name

describe('rows of one solver', () => {
  it('are in every table there is, and this solver sees them', async () => {
    expect(tables.length).toBeGreaterThan(12)
    for (const table of tables) expect(await count(rowsOf(gull), table), table).toBeGreaterThan(0)
  })

  it('are not seen by another, nor changed, nor taken away, whatever is asked for', async () => {
    for (const table of tables) {
      // Who solves here is no secret.
      const seen = table === 'profiles' ? 2 : 0
      expect(await count(rowsOf(kelp), table), table).toBe(seen)
      await transaction(kelp, async (client) => {
        expect(await count(client, table), table).toBe(seen)
      })
      const before = await count(allRows, table)
      const first = await column(table)
      const others = table === 'profiles' ? `where id = '${gull}'` : ''
      const changed = await rowsOf(kelp).query(`update ${table} set ${first} = ${first} ${others}`)
      expect(changed.rowCount, table).toBe(0)
      const gone = await rowsOf(kelp).query(`delete from ${table} ${others}`)
      expect(gone.rowCount, table).toBe(0)
      expect(await count(allRows, table), table).toBe(before)
    }
  })

  it('are not in what is read in one view', async () => {
    const read = async (client: Queryable) => `${await count(client, 'solves')}`
    for (const [solver, is] of [
      [kelp, '0'],
      [gull, `${await count(rowsOf(gull), 'solves')}`],
    ]) {
      const said: string[] = []
      for await (const piece of inOneView(solver, async function* (client) {
        yield await read(client)
      }))
        said.push(piece)
      expect(said).toEqual([is])
    }
  })

  it('cannot be made by another', async () => {
    const inserting = rowsOf(kelp).query(
      `insert into copies (profile_id, puzzle_id, name, scheme) values ($1, 'cube-3', 'x', '[]')`,
      [gull],
    )
    await expect(inserting).rejects.toThrow(/row-level security/)
    const parts = rowsOf(kelp).query(
      `insert into bench_events (session_id, seq, event) values ($1, 99, '{}')`,
      [(await rowsOf(gull).query<{ id: string }>('select id from bench_sessions')).rows[0].id],
    )
    await expect(parts).rejects.toThrow(/row-level security/)
  })

  it('are seen by nobody who does not say for whom they ask', async () => {
    const client = new Client({ connectionString: process.env.DATABASE_URL })
    await client.connect()
    try {
      for (const table of tables)
        expect(await count(client as unknown as Queryable, table), table).toBe(
          table === 'profiles' ? 2 : 0,
        )
    } finally {
      await client.end()
    }
    await expect(rowsOf('').query('select 1')).rejects.toThrow(/no solver/)
  })
})
