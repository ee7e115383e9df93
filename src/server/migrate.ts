/** Brings a database to the newest migration, or back. */
import { fileURLToPath } from 'node:url'
import { runner } from 'node-pg-migrate'

const folder = fileURLToPath(new URL('./migrations', import.meta.url))

export async function migrate(
  databaseUrl: string,
  direction: 'up' | 'down' = 'up',
  count = Infinity,
): Promise<number> {
  const done = await runner({
    databaseUrl,
    dir: folder,
    direction,
    count,
    migrationsTable: 'migrations',
    logger: {
      debug: () => undefined,
      info: () => undefined,
      warn: console.warn,
      error: console.error,
    },
  })
  return done.length
}
