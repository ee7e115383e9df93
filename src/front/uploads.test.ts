import { createHash } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { connect } from 'node:net'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Result } from '../core/result'
import { must } from '../core/result'
import { SOLVER_COOKIE } from '../server/headers'
import { LONGEST_FILE } from '../server/limits'
import { allRows } from '../server/pool'
import { makeSolver } from '../server/profiles'
import { freshDatabase } from '../server/testDatabase'
import { ask, portOf } from './ask.testing'
import { door } from './door'

let discard: () => Promise<void>
let server: Server
let solver: string

beforeAll(async () => {
  discard = await freshDatabase('uploads')
  solver = must(await makeSolver('Tern'))
  const answer = door(() => Promise.reject(new Error('the application is not asked')), false)
  server = createServer((asked, response) => void answer(asked, response))
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
})
afterAll(async () => {
  await new Promise((closed) => server.close(closed))
  await discard()
})

async function send(
  path: string,
  body: Buffer | string,
  headers: Record<string, string> = {},
): Promise<{ status: number; result: Result<string> }> {
  const { status, text } = await ask(server, {
    ...{ method: 'POST', path, body },
    headers: { cookie: `a=b; ${SOLVER_COOKIE}=${solver}`, ...headers },
  })
  return { status, result: JSON.parse(text) as Result<string> }
}

const count = async (table: string) =>
  (await allRows.query<{ count: number }>(`select count(*)::int as count from ${table}`)).rows[0]
    .count

describe('a file that comes in', () => {
  it('is kept whole, byte for byte, however long it is, and given to the queue', async () => {
    // Longer than what anything on the way would gather in memory unasked.
    const file = Buffer.alloc(25_000_000, 'Rope and lantern, tide by tide. ')
    const { result } = await send('/api/imports?kind=backup', file)
    const id = must(result)
    const { rows } = await allRows.query<{ bytes: number; state: string }>(
      'select bytes, state from jobs where id = $1',
      [id],
    )
    expect(rows).toEqual([{ bytes: file.length, state: 'waiting' }])
    const parts = await allRows.query<{ bytes: Buffer }>(
      'select bytes from job_parts where job_id = $1 order by seq',
      [id],
    )
    const kept = createHash('sha256')
    for (const { bytes } of parts.rows) kept.update(bytes)
    expect(kept.digest('hex')).toBe(createHash('sha256').update(file).digest('hex'))
    expect(parts.rowCount).toBeGreaterThan(10)
    await allRows.query('delete from jobs')
  })

  it('that breaks off is refused, and nothing of it is kept', async () => {
    const whole = 'puzzle,school\n'.repeat(300_000)
    await new Promise<void>((closed) => {
      const socket = connect(portOf(server), '127.0.0.1', () => {
        socket.write(
          `POST /api/imports?kind=log HTTP/1.1\r\nHost: localhost\r\nCookie: ${SOLVER_COOKIE}=${solver}\r\n` +
            `Content-Length: ${whole.length}\r\n\r\n${whole.slice(0, 2_800_000)}`,
          () => setTimeout(() => socket.destroy(), 200),
        )
      })
      socket.on('close', () => closed())
    })
    await expect.poll(() => count('jobs')).toBe(0)
    expect(await count('job_parts')).toBe(0)
    expect(await count('queue.job')).toBe(1)
  })

  it('is refused with the reason where it is too long, or nobody knows what it is, or whose', async () => {
    const wrong = async (path: string, headers: Record<string, string>, status: number) => {
      const heard = await send(path, '{}', headers)
      expect([heard.status, heard.result.ok]).toEqual([status, false])
      return heard.result.ok ? undefined : heard.result.problem
    }
    expect(await wrong('/api/imports?kind=shelf', {}, 400)).toMatchObject({ field: 'kind' })
    expect(await wrong('/api/imports?kind=sequences', {}, 400)).toMatchObject({ field: 'puzzle' })
    must(await makeSolver('Plover'))
    expect(await wrong('/api/imports?kind=log', { cookie: '' }, 401)).toMatchObject({
      code: 'nobody',
    })
    const tooLong = { 'content-length': `${LONGEST_FILE + 1}` }
    expect((await wrong('/api/imports?kind=log', tooLong, 413))?.sentence).toMatch(/2 GB/)
    expect(await count('jobs')).toBe(0)
  })

  it('on a disk that is full is told so', async () => {
    const full = Object.assign(new Error('could not extend file'), { code: '53100' })
    const query = vi.spyOn(allRows, 'query').mockRejectedValue(full as never)
    try {
      const heard = await send('/api/imports?kind=log', '{}')
      expect(heard.status).toBe(507)
      expect(heard.result).toMatchObject({ problem: { sentence: expect.stringMatching(/disk/) } })
    } finally {
      query.mockRestore()
    }
  })
})
