/** The one pool of connections, and transactions on it. */
import { Pool, types, type PoolClient } from 'pg'

// bigint columns are seeds, which fit a JavaScript number.
types.setTypeParser(types.builtins.INT8, Number)

const globalPool = globalThis as { merryPool?: Pool }

/** Throws if DATABASE_URL is not set: the start script sets it. */
export function pool(): Pool {
  if (!globalPool.merryPool) {
    const connectionString = process.env.DATABASE_URL
    if (!connectionString)
      throw new Error('DATABASE_URL is not set; start the program with ./merry')
    globalPool.merryPool = new Pool({ connectionString, max: 10 })
    // An idle connection that breaks (a restart of the database) is replaced at the next query.
    globalPool.merryPool.on('error', (error) =>
      console.error('database connection lost', error.message),
    )
  }
  return globalPool.merryPool
}

export type Queryable = Pick<PoolClient, 'query'>

/** Everything in `work` happens, or nothing. */
export async function transaction<T>(work: (client: PoolClient) => Promise<T>): Promise<T> {
  const client = await pool().connect()
  try {
    await client.query('begin')
    const value = await work(client)
    await client.query('commit')
    return value
  } catch (error) {
    await client.query('rollback')
    throw error
  } finally {
    client.release()
  }
}
