/**
 * The one pool of connections. Nobody gets one without saying whose rows are meant: PostgreSQL itself keeps all others
 * out of sight (migration 0018), also where a statement forgets its condition.
 */
import { fail } from '../core/result'
import { Client, Pool, types, type PoolClient } from 'pg'
import { isId } from './id'

// bigint columns are seeds, which fit a JavaScript number.
types.setTypeParser(types.builtins.INT8, Number)

// On the global object: the build holds this module several times, and all are to share the one pool, and to know
// for whom each of its connections speaks.
const shared = globalThis as { merryPool?: Pool; merrySeen?: WeakMap<object, Whose> }

/** Throws if DATABASE_URL is not set: the start script sets it. */
function pool(): Pool {
  if (!shared.merryPool) {
    const connectionString = process.env.DATABASE_URL
    if (!connectionString)
      throw new Error('DATABASE_URL is not set; start the program with ./merry')
    shared.merryPool = new Pool({
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
    shared.merryPool.on('error', (error) =>
      console.error('database connection lost', error.message),
    )
  }
  return shared.merryPool
}

/** Ends its connections; the next statement begins anew. */
export async function closePool(): Promise<void> {
  const closing = shared.merryPool
  shared.merryPool = undefined
  await closing?.end()
}

export type Queryable = Pick<PoolClient, 'query'>

/** Whose rows statements see: of one solver, by id, or of all, which is for what belongs to no single one. */
type Whose = string

const ALL = 'everyone'

/** What makes a connection that is not of the pool see the rows of all, from its beginning. */
export const SEES_ALL = { options: `-c merry.solver=${ALL}` }

/** Whose rows a connection sees now; one that is not here yet, or not any more, sees none. */
const seen = (shared.merrySeen ??= new WeakMap())

/**
 * Lets a connection see these rows alone. The owner of the tables, or who may do everything, would see all of them
 * whatever the policies say, so it takes a role that may not.
 */
async function show(client: Queryable, whose: Whose): Promise<void> {
  if (seen.get(client) === whose) return
  if (whose !== ALL && !isId(whose)) throw new Error('no solver is named')
  seen.delete(client)
  await client.query(
    `select set_config('merry.solver', $1, false),
       set_config('role', case when $1 = '${ALL}' or not exists (
         select from pg_roles where rolname = session_user and (rolsuper or rolbypassrls))
         then 'none' else 'merry_solver' end, false)`,
    [whose],
  )
  seen.set(client, whose)
}

/** Takes a connection for a while; `lose` gives it up, where it is of no use any more. */
async function withClient<T>(
  whose: Whose,
  work: (client: PoolClient, lose: (why: Error) => void) => Promise<T>,
): Promise<T> {
  const client = await pool().connect()
  let broken: Error | undefined
  const lose = (why: Error) => (broken = why)
  // Between two queries a broken connection tells itself here; the next query fails with it.
  client.on('error', lose)
  try {
    await show(client, whose).catch((why: Error) => {
      lose(why)
      throw why
    })
    return await work(client, lose)
  } finally {
    client.off('error', lose)
    client.release(broken)
  }
}

/** Whether the database has said it: then the connection still serves. */
const isAnswer = (error: unknown): boolean =>
  typeof (Object(error) as { severity?: unknown }).severity === 'string'

const queryable = (whose: Whose): Queryable =>
  ({
    query: (text: string, values?: unknown[]) =>
      withClient(whose, async (client, lose) => {
        try {
          return await client.query(text, values)
        } catch (error) {
          if (!isAnswer(error)) lose(error as Error)
          throw error
        }
      }),
  }) as Queryable

/** For statements about one solver: they see and change what is this solver's, and nothing else. */
export const rowsOf = (profileId: string): Queryable => queryable(profileId)

/** For statements of the program itself: who there is, what waits in the queue, what passes from one to another. */
export const allRows: Queryable = queryable(ALL)

/** Everything in `work` happens, or nothing; it sees the rows of one solver, by id. */
export const transaction = <T>(
  profileId: string,
  work: (client: PoolClient) => Promise<T>,
): Promise<T> => within(profileId, work)

/** The same with the rows of all. */
export const transactionOfAll = <T>(work: (client: PoolClient) => Promise<T>): Promise<T> =>
  within(ALL, work)

const within = <T>(whose: Whose, work: (client: PoolClient) => Promise<T>): Promise<T> =>
  withClient(whose, async (client, lose) => {
    try {
      await client.query('begin')
      const value = await work(client)
      await client.query('commit')
      return value
    } catch (error) {
      // Where even that fails the connection is gone, and with it everything that was begun.
      await client.query('rollback').catch(lose)
      throw error
    }
  })

/** As many long readings as go on at once. */
const MOST_VIEWS = 4
let views = 0

/** More is asked than can be done now. */
export class Busy extends Error {}

/**
 * Reads a solver's rows within one view of the database, so that what is read fits together however long whoever
 * wants it takes. It has a connection of its own: those of the pool are for what is short.
 *
 * @throws Busy
 */
export async function* inOneView(
  profileId: string,
  read: (client: Queryable) => AsyncGenerator<string>,
): AsyncGenerator<string> {
  if (views >= MOST_VIEWS) throw new Busy('too many files are written just now')
  views++
  const client = new Client({ connectionString: process.env.DATABASE_URL, keepAlive: true })
  // A connection that breaks tells the query that is under way, too.
  client.on('error', () => undefined)
  try {
    await client.connect()
    await show(client, profileId)
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
