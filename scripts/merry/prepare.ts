/** Makes the database if it is missing, migrates it and, where the shelf is empty, loads the demo. */
import { Client } from 'pg'
import { loadDemo } from '../../src/server/demo/load'
import { migrate } from '../../src/server/migrate'
import { pool } from '../../src/server/pool'
import { say } from './say'

const url = process.env.DATABASE_URL
if (!url) throw new Error('DATABASE_URL is not set')

await createDatabase(url)
const migrations = await migrate(url)
if (migrations > 0) say(`${migrations} migrations done`)
if (await loadDemo()) say('the demo data are loaded')
await pool().end()

/** Only on the private server, whose maintenance database is `postgres`. */
async function createDatabase(target: string): Promise<void> {
  const name = new URL(target).pathname.slice(1)
  const client = new Client({ connectionString: target })
  try {
    await client.connect()
    await client.end()
  } catch (error) {
    if ((error as { code?: string }).code !== '3D000') throw error
    const maintenance = new Client({ connectionString: target.replace(/\/[^/]*$/, '/postgres') })
    await maintenance.connect()
    await maintenance.query(`create database "${name.replaceAll('"', '')}"`)
    await maintenance.end()
  }
}
