/** No side door: every file under app/, every action of the build and a thousand addresses near them, asked as a stranger. */
import { readdirSync, readFileSync } from 'node:fs'
import { request } from 'node:http'
import { SOLVER_COOKIE } from '../src/server/headers'
import { expect, test } from './fixtures'

/** A page under a name that another site has pointed here. */
const STRANGER = 'rebound.example'

interface Asked {
  readonly method: string
  readonly path: string
  readonly headers?: Record<string, string>
  readonly body?: string
}

const ask = (address: string, { method, path, headers, body }: Asked) =>
  new Promise<{ status: number; text: string }>((resolve, reject) => {
    const { hostname, port } = new URL(address)
    const asked = request(
      {
        ...{ hostname, port, method, path },
        headers: {
          host: STRANGER,
          ...(body === undefined ? {} : { 'content-length': `${Buffer.byteLength(body)}` }),
          ...headers,
        },
      },
      (response) => {
        let text = ''
        response.on('data', (piece: Buffer) => (text += piece.toString('utf8')))
        response.on('end', () => resolve({ status: response.statusCode ?? 0, text }))
      },
    )
    asked.on('error', reject)
    asked.end(body)
  })

/** Files of a folder and of those in it, with their paths. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => `${folder}/${name}`)

/** What the door answers by itself. */
const DOOR = ['/api/bench/00000000-0000-4000-8000-000000000001', '/api/pictures/cube-3', '/api/log']

/** Addresses of pages and routes, with something in each place that holds a name. */
const addresses = (): string[] =>
  filesIn('src/app')
    .filter((file) => /\/(page\.tsx|route\.ts)$/.test(file))
    .map((file) =>
      file
        .replace(/^src\/app/, '')
        .replace(/\/(page\.tsx|route\.ts)$/, '')
        .replace(/\[\w+\]/g, '00000000-0000-4000-8000-000000000001')
        .replace(/^$/, '/'),
    )
    .concat(DOOR)

const builtFiles = (): string[] =>
  filesIn(`${process.env.MERRY_BUILD ?? '.next'}/static`)
    .filter((file) => /\.(js|css|woff2)$/.test(file))
    .map((file) => file.replace(/^[^/]+/, '/_next'))

/** The ids by which the build knows its actions. */
function actions(): string[] {
  const text = readFileSync(
    `${process.env.MERRY_BUILD ?? '.next'}/server/server-reference-manifest.json`,
    'utf8',
  )
  const { node } = JSON.parse(text) as { node: Record<string, unknown> }
  return Object.keys(node)
}

/** The same sequence of numbers every time. */
function* numbers(): Generator<number, never> {
  for (let seed = 1207; ;) yield (seed = (seed * 48_271) % 2_147_483_647)
}

test('a stranger gets nothing, whatever the address', async ({ server }) => {
  const known = [...addresses(), ...builtFiles(), '/icon.svg', '/favicon.ico', '/', '/nothing']
  expect(addresses().length).toBeGreaterThan(25)
  expect(builtFiles().length).toBeGreaterThan(10)
  const random = numbers()
  const pick = <T>(list: readonly T[]): T => list[random.next().value % list.length]
  const mutated = Array.from({ length: 400 }, () => {
    const path = pick(known)
    const at = random.next().value % (path.length + 1)
    const sign = pick(['x', '/', '.', '%2e', '%2F', '?a=', '\\', ';', '_next/static/', 'icon.svg'])
    return `/${path.slice(1, at)}${sign}${path.slice(at)}`.replace(/^\/\/+/, '/')
  })
  const tries: Asked[] = [
    ...known.map((path) => ({ method: 'GET', path })),
    ...known.map((path) => ({ method: 'GET', path: `${path}x` })),
    ...known.map((path) => ({ method: 'POST', path, body: '{}' })),
    ...mutated.map((path, i) => ({ method: i % 3 === 0 ? 'POST' : 'GET', path })),
    ...actions().flatMap((id) =>
      ['/shelf', '/_next/staticx', '/favicon.icox/y'].map((path) => ({
        ...{ method: 'POST', path, body: '[]' },
        headers: { 'next-action': id, 'content-type': 'text/plain;charset=UTF-8' },
      })),
    ),
  ]
  expect(actions().length).toBeGreaterThan(20)
  const wrong: string[] = []
  for (const asked of tries) {
    const { status, text } = await ask(server.address, asked)
    if (status !== 403 || !/not its own/.test(text))
      wrong.push(`${asked.method} ${asked.path}: ${status}`)
  }
  expect(wrong).toEqual([])
})

test('who is at home gets an answer at each of them, and another site none that changes anything', async ({
  server,
}) => {
  const host = new URL(server.address).host
  for (const path of ['/icon.svg', '/favicon.ico', '/solvers', ...builtFiles().slice(0, 5)])
    expect((await ask(server.address, { method: 'GET', path, headers: { host } })).status).toBe(200)
  const [id] = actions()
  for (const origin of ['http://other.site', 'null', `http://${host}.other.site`]) {
    const headers = { host, origin, 'next-action': id, 'content-type': 'text/plain' }
    const asked = { method: 'POST', path: '/_next/static/x', body: '[]', headers }
    expect((await ask(server.address, asked)).status).toBe(403)
  }
})

test('names that every object has by birth are refused in a sentence, wherever they are sent', async ({
  server,
  solver,
}) => {
  const host = new URL(server.address).host
  const bench = '/api/bench/00000000-0000-4000-8000-000000000001'
  const wrong: string[] = []
  for (const name of Object.getOwnPropertyNames(Object.prototype))
    for (const [method, path] of [
      ['POST', bench],
      ['POST', `${bench}/school`],
      ['POST', `${bench}/take-up`],
      ['PUT', '/api/small-letters'],
      ['POST', '/api/surveys'],
    ])
      for (const body of [`{"${name}":1}`, `{"entries":[{"event":{"${name}":{"${name}":[]}}}]}`]) {
        const { status, text } = await ask(server.address, {
          ...{ method, path, body },
          headers: {
            host,
            'content-type': 'application/json',
            cookie: `${SOLVER_COOKIE}=${solver.id}`,
          },
        })
        if (status !== 400 || !text.includes('no field can have this name'))
          wrong.push(`${method} ${path} ${body}: ${status} ${text.slice(0, 100)}`)
      }
  expect(wrong).toEqual([])
})
