/** What tests do in their database themselves: copies of their own, the demo's settings, damage. */
import { readFileSync, writeFileSync } from 'node:fs'
import { Client } from 'pg'
import type { OwnCopy } from './fixtures'
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

export async function addOwnCopy(of: string): Promise<OwnCopy> {
  const name = `${of} ${Date.now().toString(36).slice(-5)}`
  const [row] = await sql<{ id: string }>(
    `insert into copies (profile_id, puzzle_id, name, scheme)
     select profile_id, puzzle_id, $2, scheme from copies where name = $1 returning id`,
    [of, name],
  )
  if (!row) throw new Error(`there is no ${of}`)
  return { id: row.id, name }
}

/** Written down when the demo is loaded: what is there besides has been made by a test. */
export const DEMO_FILE = '.data/e2e-demo.json'

interface Demo {
  readonly copies: readonly string[]
  readonly sessions: readonly string[]
  readonly solves: readonly string[]
  readonly settings: unknown
}

export async function noteDemo(): Promise<void> {
  const ids = async (table: string) =>
    (await sql<{ id: string }>(`select id from ${table}`)).map(({ id }) => id)
  const [settings] = await sql<{ value: unknown }>('select value from settings')
  const demo: Demo = {
    copies: await ids('copies'),
    sessions: await ids('bench_sessions'),
    solves: await ids('solves'),
    settings: settings.value,
  }
  writeFileSync(DEMO_FILE, JSON.stringify(demo))
}

/** Everything as the demo has it, whatever the test before has left. */
export async function backToDemo(): Promise<void> {
  const demo = JSON.parse(readFileSync(DEMO_FILE, 'utf8')) as Demo
  await sql('delete from copies where id <> all($1)', [demo.copies])
  await sql('delete from bench_sessions where id <> all($1)', [demo.sessions])
  // Laying a puzzle out anew has put its bench aside.
  await sql(`update bench_sessions set status = 'open', ended_at = null`)
  await sql('delete from bench_events')
  await sql('delete from solves where id <> all($1)', [demo.solves])
  await sql('delete from own_puzzles')
  await sql('update settings set value = $1', [JSON.stringify(demo.settings)])
}
