/** A database of its own for each test file, made from a migrated template on the real server. */
import { readFileSync } from 'node:fs'
import { Client } from 'pg'
import { puzzleById } from '../core/catalog'
import type { PuzzleDefinition } from '../core/puzzle/definition'
import { readDefinition } from '../core/puzzle/readDefinition'
import { must } from '../core/result'
import { openSession, type NewSession } from './benchSessions'
import { addCopy, findCopy, type Copy } from './copies'
import { runningBench } from './leftOff'
import { migrate } from './migrate'
import { closePool } from './pool'

const TEMPLATE = 'merry_template'

export function serverUrl(database: string): string {
  const url = process.env.TEST_DATABASE_URL
  if (!url) throw new Error('TEST_DATABASE_URL is not set: run the tests with ./merry test')
  return url.replace(/\/[^/]*$/, `/${database}`)
}

async function onServer<T>(work: (client: Client) => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: serverUrl('postgres') })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

/** Migrates the template once, also when several test files begin together. */
async function needTemplate(): Promise<void> {
  await onServer(async (client) => {
    // One at a time: the lock is given up with the connection.
    await client.query('select pg_advisory_lock(1103)')
    const found = await client.query('select 1 from pg_database where datname = $1', [TEMPLATE])
    if (found.rowCount === 0) await client.query(`create database ${TEMPLATE}`)
    await migrate(serverUrl(TEMPLATE))
  })
}

/**
 * Takes a database away, whoever is connected to it. The server's own cleaning may be there just then, which only its
 * owner may end: then it is tried again.
 */
export async function dropDatabase(client: Client, name: string): Promise<void> {
  for (let tries = 0; ; tries++)
    try {
      await client.query(`drop database if exists ${name} with (force)`)
      return
    } catch (error) {
      const isCleaned = (error as { code?: unknown }).code === INSUFFICIENT_PRIVILEGE
      if (!isCleaned || tries > 100) throw error
      await new Promise((wait) => setTimeout(wait, 200))
    }
}

const INSUFFICIENT_PRIVILEGE = '42501'

/** Makes the database anew and points the pool to it; the function returned closes the pool. */
export async function freshDatabase(name: string): Promise<() => Promise<void>> {
  await needTemplate()
  const database = `merry_test_${name}`
  await onServer(async (client) => {
    await client.query('select pg_advisory_lock(1103)')
    await dropDatabase(client, database)
    await client.query(`create database ${database} template ${TEMPLATE}`)
  })
  process.env.DATABASE_URL = serverUrl(database)
  // It is taken away when the next run begins: a connection that is just closing must not be cut.
  return closePool
}

/** The school file that stands in its documentation. */
export const exampleSchool = (): Record<string, unknown> => {
  const found = /```json\n([\s\S]*?)```/.exec(readFileSync('docs/school-file.md', 'utf8'))
  if (!found) throw new Error('there is no example')
  return JSON.parse(found[1]) as Record<string, unknown>
}

/** A puzzle file of somebody's own, small enough to be built in no time. */
export const exampleFile = (name: string): PuzzleDefinition =>
  must(readDefinition({ schema: 1, id: 'slab', name, mechanism: { kind: 'box', size: [1, 2, 3] } }))

/** Opens a bench, whatever is left off for it. */
export async function openAnew(profileId: string, given: NewSession): Promise<string> {
  const running = await runningBench(profileId, given.copyId)
  const opened = await openSession(profileId, given, running?.id)
  if (!('bench' in opened)) throw new Error('another bench was opened meanwhile')
  return opened.bench
}

/** A copy of a puzzle on a solver's shelf, in the puzzle's own colours. */
export async function exampleCopy(
  profileId: string,
  puzzleId: string,
  name: string,
): Promise<Copy> {
  const scheme = must(puzzleById(puzzleId)).definition.colours
  const id = await addCopy(profileId, { puzzleId, name, scheme, remarks: '' })
  return (await findCopy(profileId, id)) as Copy
}
