import { fork, type ChildProcess } from 'node:child_process'
import { Client } from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dropDatabase, serverUrl } from './testDatabase'

const PROCESSES = 6
const DATABASES = 20

let openers: ChildProcess[]
let client: Client

beforeAll(async () => {
  client = new Client({ connectionString: serverUrl('postgres') })
  await client.connect()
  openers = Array.from({ length: PROCESSES }, () =>
    fork(new URL('./queueOpener.testing.ts', import.meta.url), {
      execArgv: ['--import', 'tsx'],
    }),
  )
})
afterAll(async () => {
  for (const opener of openers) opener.kill()
  await client.end()
})

/** What a process says until it has closed again. */
const opening = (opener: ChildProcess, url: string) =>
  new Promise<string[]>((resolve) => {
    const said: string[] = []
    const hear = (word: string) => {
      said.push(word)
      if (word !== 'closed') return
      opener.off('message', hear)
      resolve(said)
    }
    opener.on('message', hear)
    opener.send(url)
  })

describe('the queue of a fresh database', () => {
  it(`is opened by ${PROCESSES} processes at once, ${DATABASES} times, and none is in another's way`, async () => {
    for (let n = 0; n < DATABASES; n++) {
      const name = `merry_test_queue_${n}`
      await dropDatabase(client, name)
      await client.query(`create database ${name}`)
      const said = await Promise.all(openers.map((opener) => opening(opener, serverUrl(name))))
      expect(said).toEqual(Array(PROCESSES).fill(['opened', 'closed']))
      await dropDatabase(client, name)
    }
  })
})
