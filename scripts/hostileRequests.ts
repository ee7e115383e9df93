/**
 * What a stranger could send to the running program: good requests spoiled here and there, and what has stopped programs
 * before, through the door and everything behind it. Nothing may fail without a word, and nobody else may wait for it.
 */
import { readFileSync } from 'node:fs'
import { request } from 'node:http'
import { seededRandom } from '../src/core/random'
import { SOLVER_COOKIE } from '../src/server/headers'
import { LONGEST_BODY } from '../src/server/limits'
import { allRows } from '../src/server/pool'
import { asText, pick, someTimes } from './hostile'

const COUNT = 2000
/** How often somebody else asks for a page meanwhile. */
const ASK_MS = 50

const ID = '00000000-0000-4000-8000-000000000001'
const NAMES = Object.getOwnPropertyNames(Object.prototype)

interface Sent {
  readonly method: string
  readonly path: string
  readonly body: string
  readonly type: string
  readonly headers?: Record<string, string>
}

const fill = (sign: string, end = ''): string => {
  const whole = Math.floor((LONGEST_BODY - end.length) / sign.length)
  return sign.repeat(whole) + end
}

/** Texts as long as they may be, or longer. */
const LARGE: readonly (() => string)[] = [
  () => fill('['),
  () => '['.repeat(60) + fill('[],').slice(0, -100) + '[]' + ']'.repeat(60),
  () => `[${fill('1,', '1]').slice(1)}`,
  () => `{${fill('"a":{},', '"b":1}').slice(1)}`,
  () => `"${fill('x', '"').slice(1)}`,
  () => `"${fill('\\u0000', '"').slice(6)}`,
  () => fill('{"a":'),
  () => 'x'.repeat(LONGEST_BODY + 1),
]

function goodOnes(bench: string): readonly Omit<Sent, 'type'>[] {
  const event = { kind: 'turn', atMs: 5, name: 'R' }
  const json = (value: unknown) => JSON.stringify(value)
  return [
    {
      method: 'POST',
      path: `/api/bench/${bench}`,
      body: json({ after: 0, entries: [{ id: ID, event }] }),
    },
    {
      method: 'POST',
      path: `/api/bench/${bench}/school`,
      body: json({ school: 'layers', variant: {} }),
    },
    { method: 'POST', path: `/api/bench/${ID}/take-up`, body: json({ instead: ID }) },
    { method: 'POST', path: `/api/bench/${ID}/finish`, body: '{}' },
    {
      method: 'PUT',
      path: '/api/small-letters',
      body: json({ puzzleId: 'cube-4', means: 'wide' }),
    },
    { method: 'POST', path: '/api/surveys', body: json({ puzzleId: 'none', schoolId: 'layers' }) },
    {
      method: 'POST',
      path: '/api/log',
      body: json({ format: 'merry-lantern-log', version: 1, solves: [] }),
    },
    {
      method: 'POST',
      path: '/api/imports?kind=sequences&puzzle=cube-3',
      body: json({ puzzle: 'cube-3' }),
    },
  ]
}

/** The ids by which the build knows its actions. */
const actions = (): string[] => {
  const build = process.env.MERRY_BUILD ?? '.next'
  const text = readFileSync(`${build}/server/server-reference-manifest.json`, 'utf8')
  return Object.keys((JSON.parse(text) as { node: object }).node)
}

export async function measureHostileRequests(address: string): Promise<void> {
  const random = seededRandom(1209)
  const { rows } = await allRows.query<{ id: string; bench: string }>(
    `select p.id, s.id as bench from profiles p join bench_sessions s on s.profile_id = p.id
     where s.status = 'open' order by p.created_at limit 1`,
  )
  const [{ id: solver, bench }] = rows
  const good = goodOnes(bench)
  const ids = actions()
  const make = (): Sent => {
    const how = random.below(10)
    const one = pick(random, good)
    const type = 'application/json'
    if (how < 4)
      return { ...one, type, body: asText(someTimes(random, JSON.parse(one.body))) ?? '' }
    if (how < 6)
      return {
        ...one,
        type,
        body: JSON.stringify({ ...JSON.parse(one.body), [pick(random, NAMES)]: 1 }),
      }
    if (how < 8) return { ...one, type, body: pick(random, LARGE)() }
    const body =
      random.below(2) === 0 ? pick(random, LARGE)() : asText([someTimes(random, { a: 1 })])
    const headers = { 'next-action': pick(random, ids) }
    return { method: 'POST', path: '/shelf', body, type: 'text/plain;charset=UTF-8', headers }
  }
  const cookie = `${SOLVER_COOKIE}=${solver}`
  let isOver = false
  const waits: number[] = []
  const other = (async () => {
    while (!isOver) {
      const began = performance.now()
      await send(
        address,
        { method: 'GET', path: '/api/imports?kind=log', body: '', type: '' },
        cookie,
      )
      waits.push(performance.now() - began)
      await new Promise((wait) => setTimeout(wait, ASK_MS))
    }
  })()
  const statuses = new Map<number, number>()
  let worst = { ms: 0, what: '' }
  for (let n = 0; n < COUNT; n++) {
    const sent = make()
    const before = waits.length
    const { status, text } = await send(address, sent, cookie)
    const what = `${sent.method} ${sent.path} ${sent.body.slice(0, 120)}`
    if (status >= 500 && status !== 503)
      throw new Error(`${status} for ${what}: ${text.slice(0, 200)}`)
    statuses.set(status, (statuses.get(status) ?? 0) + 1)
    const waited = Math.max(0, ...waits.slice(before))
    if (waited > worst.ms) worst = { ms: waited, what }
  }
  isOver = true
  await other
  waits.sort((a, b) => a - b)
  console.log(
    `through the door   ${COUNT} requests, answered ${[...statuses].map(([status, times]) => `${status} ${times} times`).join(', ')}; ` +
      `somebody else waited ${Math.round(waits[waits.length >> 1])} ms, at most ${Math.round(waits.at(-1) ?? 0)} ms (${worst.what.slice(0, 60)})`,
  )
}

function send(
  address: string,
  { method, path, body, type, headers }: Sent,
  cookie: string,
): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const asked = request(
      address + path,
      {
        method,
        agent: false,
        headers: {
          cookie,
          ...(method === 'GET'
            ? {}
            : { 'content-type': type, 'content-length': Buffer.byteLength(body) }),
          ...headers,
        },
      },
      (response) => {
        let text = ''
        response.on('data', (piece: Buffer) => (text += piece.toString('utf8')))
        response.on('end', () => resolve({ status: response.statusCode ?? 0, text }))
        response.on('error', reject)
      },
    )
    // Refused before all of it was sent: the answer came first.
    asked.on('error', (error: NodeJS.ErrnoException) =>
      ['EPIPE', 'ECONNRESET'].includes(error.code ?? '')
        ? resolve({ status: 413, text: '' })
        : reject(error),
    )
    asked.end(method === 'GET' ? undefined : body)
  })
}
