/** Makes the browser tests' database anew. */
import { Client } from 'pg'
import { loadDemo } from '../src/server/demo/load'
import { migrate } from '../src/server/migrate'
import { closePool } from '../src/server/pool'
import { dropDatabase } from '../src/server/testDatabase'

const url = process.env.DATABASE_URL ?? ''
const name = new URL(url).pathname.slice(1)
const client = new Client({ connectionString: url.replace(/\/[^/]*$/, '/postgres') })
await client.connect()
await dropDatabase(client, name)
await client.query(`create database ${name}`)
await client.end()
await migrate(url)
await loadDemo()
await closePool()
