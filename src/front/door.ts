/**
 * The one door: every request comes through here, whatever its path, before the application sees it. Who asks under
 * another name, or from another site, gets nothing; what is sent is bounded; every answer forbids the browser whatever
 * it does not need.
 */
import type { IncomingMessage, ServerResponse } from 'node:http'
import { plainProblem } from '../core/plain'
import { fail, type Result } from '../core/result'
import { decoded } from '../server/address'
import { foreignProblem } from '../server/gate'
import { statusOf } from '../server/status'
import {
  NONCE_HEADER,
  PAGE_HEADER,
  policyOf,
  SOLVER_COOKIE,
  STANDING_HEADERS,
} from '../server/headers'
import { bodyOf, putBack } from './body'
import { Crowd } from './crowd'
import { asJson, ownHandler, type Answered } from './own'
import { isUpload, takeUpload } from './uploads'

export type Answer = (request: IncomingMessage, response: ServerResponse) => Promise<void>

const POLICY = 'content-security-policy'
/** Only this door says these to the application. */
const OURS = [PAGE_HEADER, NONCE_HEADER, POLICY]

const TOO_MUCH = fail(
  'busy',
  'Merry Lantern has too much to do just now. Try again in a few seconds.',
)
const RETRY_AFTER_S = 3

/**
 * Each kind of thing has a line of its own, so that a turn waits for no page. One thread makes the pages: more of them
 * at once would only make each of them slower, and what is quick with them.
 */
interface Lines {
  /** Files on their way in or out, which may take minutes. */
  readonly files: Crowd
  readonly turns: Crowd
  readonly pictures: Crowd
  readonly pages: Crowd
}

const LINES = (): Lines => ({
  files: new Crowd({ most: 6, mostWaiting: 20, patienceMs: 20_000 }),
  turns: new Crowd({ most: 20, mostWaiting: 1000, patienceMs: 4000 }),
  pictures: new Crowd({ most: 4, mostWaiting: 1000, patienceMs: 4000 }),
  pages: new Crowd({ most: 8, mostWaiting: 400, patienceMs: 4000 }),
})

const KINDS: readonly (readonly [path: RegExp, line: keyof Lines])[] = [
  [/^\/api\/(log|backup|imports|copies\/[^/]+)$/, 'files'],
  [/^\/api\/bench\//, 'turns'],
  [/^\/api\/pictures\//, 'pictures'],
]

const lineOf = (path: string): keyof Lines =>
  KINDS.find(([kind]) => kind.test(path))?.[1] ?? 'pages'

/** @param answer what the application does with a request that may come in */
export function door(answer: Answer, isDevelopment: boolean, lines: Lines = LINES()): Answer {
  return async (request, response) => {
    for (const name of OURS) request.headers[name] = undefined
    for (const [name, value] of STANDING_HEADERS) response.setHeader(name, value)
    const method = request.method ?? 'GET'
    const foreign = foreignProblem(method, {
      get: (name) => [request.headers[name] ?? []].flat()[0] ?? null,
    })
    if (foreign) return refuse(request, response, foreign)
    const url = addressOf(request)
    if (!url) return refuse(request, response, fail('bad-address', 'This address cannot be read.'))
    const line = lines[lineOf(url.pathname)]
    if (!(await line.comeIn())) return refuse(request, response, TOO_MUCH)
    if (response.destroyed) return line.leave()
    response.once('close', () => line.leave())
    const solver = solverOf(request)
    if (isUpload(method, url.pathname))
      return send(request, response, asJson(await takeUpload(request, url, solver)))
    const read = await bodyOf(request)
    if (!read.ok) return refuse(request, response, read)
    const body = read.value
    const nonce = Buffer.from(crypto.randomUUID()).toString('base64')
    const policy = policyOf(nonce, isDevelopment)
    response.setHeader(POLICY, policy)
    const own = ownHandler(method, url.pathname)
    if (own) return send(request, response, await own({ query: url.searchParams, solver, body }))
    if (body) await putBack(request, body)
    // On the request, so that the pages' own scripts get the nonce.
    request.headers[NONCE_HEADER] = nonce
    request.headers[POLICY] = policy
    // So that a page on which nobody is chosen can lead back to itself.
    if (!url.pathname.startsWith('/api/')) request.headers[PAGE_HEADER] = url.pathname + url.search
    await answer(request, response)
  }
}

/** Undefined where it is none of ours: an address with another host in it, or signs that no text has. */
function addressOf(request: IncomingMessage): URL | undefined {
  const text = request.url ?? ''
  if (!text.startsWith('/') || text.startsWith('//')) return undefined
  try {
    const url = new URL(text, 'http://here.invalid')
    const isRead =
      url.host === 'here.invalid' &&
      decoded(url.pathname) !== undefined &&
      [...url.searchParams].flat().every((part) => !plainProblem(part))
    return isRead ? url : undefined
  } catch {
    return undefined
  }
}

function solverOf(request: IncomingMessage): string | undefined {
  const cookies = (request.headers.cookie ?? '').split(';').map((each) => each.trim().split('='))
  return cookies.find(([name]) => name === SOLVER_COOKIE)?.[1]
}

/** What is still on its way is not waited for. */
function endUnread(request: IncomingMessage, response: ServerResponse): void {
  if (!request.complete) response.setHeader('connection', 'close')
}

/** To a program as a result, to a person as a sentence. */
function refuse(request: IncomingMessage, response: ServerResponse, result: Result<never>): void {
  if (!result.ok && result.problem.code === 'busy') response.setHeader('retry-after', RETRY_AFTER_S)
  if (request.url?.startsWith('/api/')) return send(request, response, asJson(result))
  endUnread(request, response)
  response.statusCode = statusOf(result)
  response.setHeader('content-type', 'text/plain; charset=utf-8')
  response.end(`${result.ok ? '' : result.problem.sentence}\n`)
}

function send(request: IncomingMessage, response: ServerResponse, told: Answered): void {
  endUnread(request, response)
  response.statusCode = told.status
  response.setHeader('content-type', told.type)
  response.setHeader('cache-control', told.cache)
  response.setHeader('content-length', Buffer.byteLength(told.text))
  response.end(told.text)
}
