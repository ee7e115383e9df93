/** Brings a database to the newest migration, or back. */
import { fileURLToPath } from 'node:url'
import { runner } from 'node-pg-migrate'
import { Client } from 'pg'
import { SEES_ALL } from './pool'
import { makeQueues } from './queue'

const folder = fileURLToPath(new URL('./migrations', import.meta.url))

/** Any number that nothing else of ours locks by. */
const LOCK = 7_203

/** Several may ask for it at once, on the same database: one does it, the others wait and find it done. */
export async function migrate(
  databaseUrl: string,
  direction: 'up' | 'down' = 'up',
  count = Infinity,
): Promise<number> {
  // What it changes is everybody's.
  const dbClient = new Client({ connectionString: databaseUrl, ...SEES_ALL })
  await dbClient.connect()
  try {
    // Given up with the connection.
    await dbClient.query('select pg_advisory_lock($1)', [LOCK])
    const done = await runner({
      dbClient,
      dir: folder,
      direction,
      count,
      migrationsTable: 'migrations',
      noLock: true,
      logger: {
        debug: () => undefined,
        info: () => undefined,
        warn: console.warn,
        error: console.error,
      },
    })
    if (direction === 'up') await makeQueues(dbClient)
    return done.length
  } finally {
    await dbClient.end()
  }
}
