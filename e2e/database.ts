/** What tests do in their database themselves: a solver of their own, copies of their own, damage. */
import { randomUUID } from 'node:crypto'
import { Client } from 'pg'
import { cloneSolver } from '../src/server/demo/clone'
import { SEES_ALL } from '../src/server/pool'
import { databaseUrl } from './server'

/** A test looks at the rows of all. */
const EVERYTHING = { connectionString: databaseUrl(), ...SEES_ALL }

export async function sql<Row extends object>(
  text: string,
  values: readonly unknown[] = [],
): Promise<Row[]> {
  const client = new Client(EVERYTHING)
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

/** A solver with the demo on the shelf and in the log, for one test alone. */
export async function newSolver(): Promise<TestSolver> {
  const client = new Client(EVERYTHING)
  await client.connect()
  try {
    const nickname = `Gull ${randomUUID().slice(0, 6)}`
    const demo = await client.query<{ id: string }>(
      `select id from profiles where nickname = 'Gull'`,
    )
    await client.query('begin')
    const id = await cloneSolver(client, demo.rows[0].id, nickname)
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
