/** What the door answers by itself, asked as a browser asks, of a real database. */
import { createServer, type Server } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { limitReach } from '../core/catalog/reach'
import { puzzleById } from '../core/catalog'
import { must } from '../core/result'
import { start, turnAll, writeState } from '../core/state'
import { asRequest, keepRequestsApart } from '../server/asking'
import { addCopy } from '../server/copies'
import { SOLVER_COOKIE } from '../server/headers'
import { addOwnPuzzle } from '../server/ownPuzzles'
import { allRows, closePool } from '../server/pool'
import { makeSolver, whoAsks } from '../server/profiles'
import { exampleFile, freshDatabase, openAnew } from '../server/testDatabase'
import { ask as askServer, type Heard } from './ask.testing'
import { door } from './door'

let discard: () => Promise<void>
let server: Server
let owner: string
let stranger: string
let bench: string
let slab: string

beforeAll(async () => {
  discard = await freshDatabase('own')
  keepRequestsApart()
  owner = must(await makeSolver('Tern'))
  stranger = must(await makeSolver('Heron'))
  const cube = must(puzzleById('cube-3'))
  await asRequest(async () => {
    await whoAsks(owner)
    slab = must(await addOwnPuzzle(owner, exampleFile('Quayside slab')))
    const copyId = await addCopy(owner, {
      ...{ puzzleId: 'cube-3', name: 'cube', remarks: '' },
      scheme: cube.definition.colours,
    })
    const from = must(turnAll(cube, start(cube), cube.turns.slice(0, 1)))
    bench = await openAnew(owner, {
      ...{ copyId, school: undefined, variant: {}, startState: writeState(from) },
      ...{ scramble: cube.turns[0].name, seed: undefined, laidBy: 'scramble' },
    })
  })
  const answer = door(() => Promise.reject(new Error('the application is not asked')), false)
  server = createServer((asked, response) => void answer(asked, response))
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
})
afterAll(async () => {
  limitReach(undefined)
  await new Promise((closed) => server.close(closed))
  await discard()
})

const ask = (solver: string, method: string, path: string, value?: unknown): Promise<Heard> =>
  askServer(server, {
    ...{ method, path },
    headers: { cookie: `${SOLVER_COOKIE}=${solver}` },
    ...(value === undefined
      ? {}
      : { body: typeof value === 'string' ? value : JSON.stringify(value) }),
  })

const entry = (n: number, event: object) => ({
  id: `${n}1111111-1111-4111-8111-111111111111`,
  event: { atMs: n, ...event },
})

describe('turns', () => {
  it('are stored in their order, once, and told to whoever has not heard of them', async () => {
    const path = `/api/bench/${bench}`
    const first = entry(1, { kind: 'turn', name: 'U' })
    const second = entry(2, { kind: 'undo' })
    for (const [after, sent, known] of [
      [0, first, [{ id: first.id }]],
      [1, second, [{ id: second.id }]],
      // The answer did not arrive, so it is sent again.
      [1, second, [{ id: second.id }]],
    ] as const) {
      const { status, text } = await ask(owner, 'POST', path, { after, entries: [sent] })
      expect(JSON.parse(text)).toEqual({ ok: true, value: { entries: known, stored: true } })
      expect(status).toBe(200)
    }
    const { text } = await ask(owner, 'GET', `${path}?after=1`)
    expect(JSON.parse(text)).toEqual({ ok: true, value: { entries: [second] } })
  })

  it('of another solver are neither told nor added to, nor is what is not understood', async () => {
    const path = `/api/bench/${bench}`
    const batch = { after: 2, entries: [entry(3, { kind: 'turn', name: 'U' })] }
    const before = await allRows.query('select * from bench_events order by seq')
    for (const [solver, method, address, body, status, words] of [
      [stranger, 'GET', path, undefined, 404, /not there any more/],
      [stranger, 'POST', path, batch, 404, /not there any more/],
      ['', 'GET', path, undefined, 401, /who is solving/],
      ['', 'POST', path, batch, 401, /who is solving/],
      [owner, 'GET', `${path}?after=x`, undefined, 400, /after/],
      [owner, 'POST', path, '{"after":', 400, /well-formed/],
      [owner, 'POST', path, { ...batch, toString: 1 }, 400, /can have this name/],
      [owner, 'POST', path, { ...batch, after: 7 }, 409, /more than the database/],
      [owner, 'POST', '/api/bench/x', batch, 404, /not there any more/],
      [owner, 'PUT', path, batch, 405, /in this way/],
    ] as const) {
      const heard = await ask(solver, method, address, body)
      expect([heard.status, heard.text], `${method} ${address}`).toEqual([
        status,
        expect.stringMatching(words) as string,
      ])
      expect(heard.headers['cache-control']).toBe('no-store')
    }
    const later = await allRows.query('select * from bench_events order by seq')
    expect(later.rows).toEqual(before.rows)
  })

  it('wait where the database is away', async () => {
    const address = process.env.DATABASE_URL
    await closePool()
    process.env.DATABASE_URL = 'postgresql://nobody@127.0.0.1:9/none'
    const heard = await ask(owner, 'GET', `/api/bench/${bench}?after=0`)
    expect([heard.status, heard.text]).toEqual([503, expect.stringMatching(/does not answer now/)])
    await closePool()
    process.env.DATABASE_URL = address
    expect((await ask(owner, 'GET', `/api/bench/${bench}?after=0`)).status).toBe(200)
  })
})

describe('pictures', () => {
  it('are drawn as a file of their own, that a browser keeps', async () => {
    const { status, text, headers } = await ask(stranger, 'GET', '/api/pictures/cube-3?marks=1')
    expect([status, headers['content-type']]).toEqual([200, 'image/svg+xml'])
    expect(headers['cache-control']).toMatch(/immutable/)
    expect(headers['content-security-policy']).toMatch(/default-src 'self'/)
    expect(text).toMatch(/^<svg .*<\/svg>$/s)
    expect((await ask(stranger, 'HEAD', '/api/pictures/cube-3')).text).toBe('')
  })

  it("of a solver's own puzzle are drawn for them alone", async () => {
    expect((await ask(owner, 'GET', `/api/pictures/${slab}`)).status).toBe(200)
    const other = await ask(stranger, 'GET', `/api/pictures/${slab}`)
    expect([other.status, other.text]).toEqual([404, expect.not.stringContaining('Quayside')])
    expect((await ask('', 'GET', `/api/pictures/${slab}`)).status).toBe(401)
  })

  it('are refused where the address does not fit the puzzle', async () => {
    for (const [path, status] of [
      ['cube-3?state=x', 400],
      ['cube-3?colours=x', 400],
      ['nothing', 404],
      ['%E0%A4%A', 400],
    ] as const)
      expect((await ask(stranger, 'GET', `/api/pictures/${path}`)).status, path).toBe(status)
  })
})
