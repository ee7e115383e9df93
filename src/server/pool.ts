/** The one pool of connections, and transactions on it. */
import { fail } from '../core/result'
import { Client, Pool, types, type PoolClient } from 'pg'

// bigint columns are seeds, which fit a JavaScript number.
types.setTypeParser(types.builtins.INT8, Number)

const globalPool = globalThis as { merryPool?: Pool }

/** Throws if DATABASE_URL is not set: the start script sets it. */
export function pool(): Pool {
  if (!globalPool.merryPool) {
    const connectionString = process.env.DATABASE_URL
    if (!connectionString)
      throw new Error('DATABASE_URL is not set; start the program with ./merry')
    globalPool.merryPool = new Pool({
      connectionString,
      max: 16,
      // A database that is away is said to be, before whoever asks gives up.
      connectionTimeoutMillis: 8000,
      // A new connection takes several exchanges, each of which may have to wait for other work.
      idleTimeoutMillis: 600_000,
      query_timeout: 60_000,
      keepAlive: true,
    })
    // An idle connection that breaks (a restart of the database) is replaced at the next query.
    globalPool.merryPool.on('error', (error) =>
      console.error('database connection lost', error.message),
    )
  }
  return globalPool.merryPool
}

/** Ends its connections; the next call of `pool` begins anew. */
export async function closePool(): Promise<void> {
  const closing = globalPool.merryPool
  globalPool.merryPool = undefined
  await closing?.end()
}

export type Queryable = Pick<PoolClient, 'query'>

/** Everything in `work` happens, or nothing. */
export async function transaction<T>(work: (client: PoolClient) => Promise<T>): Promise<T> {
  const client = await pool().connect()
  let broken: Error | undefined
  // Between two queries a broken connection tells itself here; the next query fails with it.
  const onError = (error: Error) => (broken = error)
  client.on('error', onError)
  try {
    await client.query('begin')
    const value = await work(client)
    await client.query('commit')
    return value
  } catch (error) {
    // Where even that fails the connection is gone, and with it everything that was begun.
    await client.query('rollback').catch((lost: Error) => (broken = lost))
    throw error
  } finally {
    client.off('error', onError)
    client.release(broken)
  }
}

/** As many long readings as go on at once. */
const MOST_VIEWS = 4
let views = 0

/** More is asked than can be done now. */
export class Busy extends Error {}

/**
 * Reads within one view of the database, so that what is read fits together however long whoever wants it takes. It has
 * a connection of its own: those of the pool are for what is short.
 *
 * @throws Busy
 */
export async function* inOneView(
  read: (client: Queryable) => AsyncGenerator<string>,
): AsyncGenerator<string> {
  if (views >= MOST_VIEWS) throw new Busy('too many files are written just now')
  views++
  const client = new Client({ connectionString: process.env.DATABASE_URL, keepAlive: true })
  // A connection that breaks tells the query that is under way, too.
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('begin isolation level repeatable read read only')
    yield* read(client as unknown as Queryable)
  } finally {
    views--
    await client.end()
  }
}

/**
 * Whether an error means that the database does not answer now, and may do so later: classes 08 and 57 of the
 * standard's codes, and what the network and the pool say.
 */
export function isAway(error: unknown): boolean {
  const { code, message } = Object(error) as { code?: unknown; message?: unknown }
  if (typeof code === 'string' && /^(08|57P|53300|E(CONN|PIPE|NOTFOUND|TIMEDOUT))/.test(code))
    return true
  return (
    typeof message === 'string' &&
    /Connection terminated|timeout exceeded when trying to connect|Query read timeout|not queryable|connection error/i.test(
      message,
    )
  )
}

/** Whether an error means that there is no room left on a disk: of the database, or of this machine. */
export function isFull(error: unknown): boolean {
  const { code } = Object(error) as { code?: unknown }
  return code === '53100' || code === 'ENOSPC'
}

export const FULL = fail(
  'full',
  'The disk of the machine on which Merry Lantern runs is full. Nothing was stored; make room there, then try again.',
)
