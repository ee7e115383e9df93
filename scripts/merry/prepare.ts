/** Makes the database if it is missing, migrates it and, where the shelf is empty, loads the demo. */
import { Client } from 'pg'
import { migrate } from '../../src/server/migrate'
import { closePool, SEES_ALL } from '../../src/server/pool'
import { say } from './say'

export async function prepareDatabase(url: string): Promise<void> {
  await createDatabase(url)
  const migrations = await migrate(url)
  if (migrations > 0) say(`${migrations} migrations done`)
  if (!(await isEmpty(url))) return
  // What the demo is made of takes a while to be loaded, and is needed once.
  const { loadDemo } = await import('../../src/server/demo/load')
  process.env.DATABASE_URL = url
  if (await loadDemo()) say('the demo data are loaded')
  await closePool()
}

async function isEmpty(url: string): Promise<boolean> {
  const client = new Client({ connectionString: url, ...SEES_ALL })
  await client.connect()
  const { rowCount } = await client.query('select 1 from copies limit 1')
  await client.end()
  return rowCount === 0
}

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
