import { createServer, type IncomingMessage, type Server } from 'node:http'
import { connect } from 'node:net'
import { PassThrough } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import fc from 'fast-check'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { LONGEST_BODY } from '../server/limits'
import { ask as askServer, portOf, type Asked, type Heard } from './ask.testing'
import { shapeProblem } from './body'
import { Crowd } from './crowd'
import { door } from './door'

/** What the application behind the door has been given. */
let given: { readonly headers: IncomingMessage['headers']; readonly body: string }[] = []
let server: Server
/** How long the application takes. */
let patience: Promise<void> = Promise.resolve()
let isPiped = false

const roomy = () => new Crowd({ most: 50, mostWaiting: 0, patienceMs: 300 })

beforeAll(async () => {
  const answer = door(
    async (asked, response) => {
      const pieces: Buffer[] = []
      // As whoever answers may read it: piece by piece, or through other streams.
      if (isPiped) {
        const through = new PassThrough()
        through.on('data', (piece: Buffer) => pieces.push(piece))
        await pipeline(asked, through)
      } else for await (const piece of asked) pieces.push(piece as Buffer)
      given.push({ headers: asked.headers, body: Buffer.concat(pieces).toString('utf8') })
      await patience
      response.end('answered')
    },
    false,
    {
      ...{ files: roomy(), turns: roomy(), pictures: roomy() },
      pages: new Crowd({ most: 3, mostWaiting: 4, patienceMs: 300 }),
    },
  )
  server = createServer((asked, response) => void answer(asked, response))
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
})
afterAll(() => new Promise((closed) => server.close(closed)))
beforeEach(() => {
  given = []
  patience = Promise.resolve()
  isPiped = false
})

const ask = (asked: Partial<Asked>): Promise<Heard> =>
  askServer(server, { path: '/shelf', ...asked })

describe('the door', () => {
  it('lets in whoever asks under a name of this machine, and nobody else, whatever the path', async () => {
    const paths = fc.oneof(
      fc.constantFrom(
        '/',
        '/icon.svg',
        '/icon.svgx',
        '/_next/static/x',
        '/favicon.ico/y',
        '/api/log',
      ),
      fc.webPath().map((path) => path || '/'),
    )
    await fc.assert(
      fc.asyncProperty(paths, fc.constantFrom('GET', 'POST', 'HEAD'), async (path, method) => {
        given = []
        const foreign = await ask({ method, path, headers: { host: 'rebound.example' } })
        expect([foreign.status, given]).toEqual([403, []])
      }),
      { numRuns: 200 },
    )
    expect((await ask({})).text).toBe('answered')
    expect((await ask({ headers: { origin: 'http://other.site' }, method: 'POST' })).status).toBe(
      403,
    )
  })

  it('alone says what a page is told, and every answer forbids what it does not need', async () => {
    const policy = "script-src 'unsafe-inline'"
    const own = await ask({
      path: '/log?page=2',
      headers: { 'x-page': '//other.site', 'x-nonce': 'mine', 'content-security-policy': policy },
    })
    const [{ headers }] = given
    expect(headers['x-page']).toBe('/log?page=2')
    expect(headers['x-nonce']).not.toBe('mine')
    expect(headers['content-security-policy']).toBe(own.headers['content-security-policy'])
    expect(own.headers['content-security-policy']).toContain(headers['x-nonce'])
    const refused = await ask({ headers: { host: 'other.site' } })
    for (const { headers: answered } of [own, refused])
      expect(answered['x-frame-options']).toBe('DENY')
  })

  it('refuses addresses that are none', async () => {
    for (const path of ['//other.site/x', 'http://other.site/x', '/%00', '/log?a=%00', '/%E0%A4%A'])
      expect((await ask({ path })).status, path).toBe(400)
  })
})

describe('what is sent', () => {
  it('arrives as it was sent, byte for byte', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.jsonValue({ stringUnit: fc.constantFrom('a', '"', '\\', '灯', '[') }),
        fc.constantFrom(1, 10, 500),
        fc.boolean(),
        async (value, times, piped) => {
          given = []
          isPiped = piped
          const body = JSON.stringify(value).repeat(times)
          fc.pre(!shapeProblem(new TextEncoder().encode(body)))
          await ask({ method: 'POST', body })
          expect(given.map((each) => each.body)).toEqual([body])
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is refused where it is too long, too deep, too much, or of unknown length', async () => {
    const refused = async (asked: Partial<Asked>, status: number, words: RegExp) => {
      const heard = await ask({ method: 'POST', path: '/api/bench/x/finish', ...asked })
      expect([heard.status, given]).toEqual([status, []])
      expect(heard.text).toMatch(words)
    }
    await refused({ body: '['.repeat(LONGEST_BODY) }, 400, /deep/)
    await refused({ body: `[${'1,'.repeat(400_000)}1]` }, 400, /values/)
    await refused({ body: 'x'.repeat(LONGEST_BODY + 1) }, 413, /larger than 2 MB/)
    await refused({ body: '{"a":"x\\u0000y"}' }, 400, /no one can see/)
    await refused(
      { body: 'x'.repeat(70_000), headers: { 'content-type': 'multipart/form-data' } },
      413,
      /64 kB/,
    )
    await refused({ headers: { 'transfer-encoding': 'chunked' } }, 411, /Content-Length/)
  })

  it('that breaks off reaches nobody', async () => {
    await new Promise<void>((closed) => {
      const socket = connect(portOf(server), '127.0.0.1', () => {
        socket.write(
          'POST /api/bench/x HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 50\r\n\r\n{"after":',
        )
        setTimeout(() => socket.destroy(), 50)
      })
      socket.on('close', () => closed())
    })
    expect((await ask({})).text).toBe('answered')
    expect(given).toHaveLength(1)
  })

  it('is measured as JSON has it: brackets in texts are none', () => {
    fc.assert(
      fc.property(
        fc.jsonValue({ maxDepth: 8, stringUnit: fc.constantFrom('[', '"', '\\', 'a') }),
        (value) => {
          const bytes = new TextEncoder().encode(JSON.stringify(value))
          expect(shapeProblem(bytes)).toBeUndefined()
          const deep = new TextEncoder().encode(
            '['.repeat(60) + JSON.stringify({ a: [[[[value]]]] }),
          )
          expect(shapeProblem(deep)?.ok).toBe(false)
        },
      ),
    )
  })

  it('gives an action a list of its arguments, and nothing else', () => {
    const bytes = (value: unknown) => new TextEncoder().encode(JSON.stringify(value))
    const isTaken = (value: unknown) => shapeProblem(bytes(value), true) === undefined
    fc.assert(
      fc.property(fc.array(fc.jsonValue(), { maxLength: 120 }), (list) => {
        expect(isTaken(list)).toBe(list.length <= 100)
      }),
    )
    for (const other of ['x'.repeat(5000), 5, null, { a: 1 }]) expect(isTaken(other)).toBe(false)
    expect(isTaken(Array.from({ length: 150_000 }, () => 1))).toBe(false)
  })
})

describe('a crowd', () => {
  it('is served in turn; who would wait too long is told so, a turn waits for no page, and all is well again', async () => {
    let open: () => void = () => undefined
    patience = new Promise((opened) => (open = opened))
    const inside = [ask({}), ask({}), ask({})]
    while (given.length < 3) await new Promise((wait) => setTimeout(wait, 5))
    const waiting = [ask({}), ask({}), ask({}), ask({})]
    await new Promise((wait) => setTimeout(wait, 50))
    const tooMany = await ask({})
    expect([tooMany.status, tooMany.headers['retry-after']]).toEqual([503, '3'])
    expect(tooMany.text).toMatch(/too much to do/)
    const turn = ask({ path: '/api/bench/x/finish' })
    while (given.length < 4) await new Promise((wait) => setTimeout(wait, 5))
    open()
    expect((await turn).status).toBe(200)
    const statuses = (await Promise.all([...inside, ...waiting])).map(({ status }) => status)
    expect(statuses).toEqual(Array(7).fill(200))
    // Whoever has waited long enough goes away, and is not counted any more.
    patience = new Promise((opened) => (open = opened))
    const late = [ask({}), ask({}), ask({})]
    const gaveUp = await Promise.all([ask({}), ask({})])
    expect(gaveUp.map(({ status }) => status)).toEqual([503, 503])
    open()
    expect((await Promise.all(late)).map(({ status }) => status)).toEqual([200, 200, 200])
    expect((await ask({})).status).toBe(200)
  })
})
