/** What the routes answer: a result as JSON, with a status that fits it. */
import { fail, type Result } from '../core/result'
import { isAway } from './pool'
import { NobodyChosen } from './solver'

const STATUS: ReadonlyMap<string, number> = new Map([
  ['not-found', 404],
  ['closed', 409],
  ['ahead', 409],
  ['too-large', 413],
  ['foreign', 403],
  ['nobody', 401],
  ['away', 503],
])

export const answer = (result: Result<unknown>): Response =>
  Response.json(result, {
    status: result.ok ? 200 : (STATUS.get(result.problem.code) ?? 400),
    headers: { 'cache-control': 'no-store' },
  })

const AWAY = fail('away', 'The database does not answer now. What you did is kept on this page.')

/** Does the work of a route. While the database is away it says so; what is really wrong is not hidden. */
export async function answering(work: () => Promise<Result<unknown>>): Promise<Response> {
  try {
    return answer(await work())
  } catch (error) {
    if (error instanceof NobodyChosen) return answer(NOBODY)
    if (!isAway(error)) throw error
    return answer(AWAY)
  }
}

const NOBODY = fail('nobody', 'Choose first who is solving: open a page of Merry Lantern.')

export interface NamedFile {
  readonly name: string
  readonly type: string
  readonly text: string
}

/** A file to keep; a failure is answered as one. */
export async function file(work: () => Promise<Result<NamedFile>>): Promise<Response> {
  let made: NamedFile | undefined
  const failed = await answering(async () => {
    const result = await work()
    if (result.ok) made = result.value
    return result.ok ? { ok: true, value: true } : result
  })
  if (!made) return failed
  return new Response(made.text, {
    headers: {
      'content-type': made.type,
      'content-disposition': `attachment; filename="${made.name}"`,
      'cache-control': 'no-store',
    },
  })
}

/** A value as a JSON file; undefined where there is nothing of that name any more. */
export const jsonFile = (name: string, work: () => Promise<unknown>): Promise<Response> =>
  file(async () => {
    const value = await work()
    return value === undefined
      ? fail('not-found', 'What this address names is not there any more.')
      : {
          ok: true,
          value: { name, type: 'application/json', text: `${JSON.stringify(value, null, 2)}\n` },
        }
  })

/** The text of a request, read no further than a limit in bytes, whatever its header says. */
export async function textOf(request: Request, limit: number): Promise<Result<string>> {
  const tooLarge = fail('too-large', `What was sent is larger than ${Math.round(limit / 1e6)} MB.`)
  if (Number(request.headers.get('content-length') ?? 0) > limit) return tooLarge
  const decoder = new TextDecoder('utf-8', { fatal: true })
  const parts: string[] = []
  let length = 0
  try {
    for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
      length += chunk.byteLength
      if (length > limit) return tooLarge
      parts.push(decoder.decode(chunk, { stream: true }))
    }
    parts.push(decoder.decode())
  } catch (error) {
    if (!(error instanceof TypeError)) throw error
    return fail('bad-input', 'What was sent is no text in UTF-8.')
  }
  return { ok: true, value: parts.join('') }
}

/** The JSON of a request. */
export async function jsonOf(request: Request, limit: number): Promise<Result<unknown>> {
  const text = await textOf(request, limit)
  if (!text.ok) return text
  try {
    return { ok: true, value: JSON.parse(text.value) as unknown }
  } catch {
    return fail('bad-input', 'What was sent is not well-formed JSON.')
  }
}
