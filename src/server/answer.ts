/** What the routes answer: a result as JSON, with a status that fits it. */
import { fail, type Result } from '../core/result'
import { failureOf } from './failure'
import { jsonIn } from './outside'
import { statusOf } from './status'

export const answer = (result: Result<unknown>): Response =>
  Response.json(result, {
    status: statusOf(result),
    headers: { 'cache-control': 'no-store' },
  })

/** Does the work of a route; a failure that people can do something about is told. */
export async function answering(work: () => Promise<Result<unknown>>): Promise<Response> {
  try {
    return answer(await work())
  } catch (error) {
    return answer(failureOf(error))
  }
}

export interface NamedFile {
  readonly name: string
  readonly type: string
  /** Piece by piece: it is written as fast as whoever asked for it reads. */
  readonly text: AsyncGenerator<string>
}

/** A file to keep; a failure is answered as one. */
export async function file(work: () => Promise<Result<NamedFile>>): Promise<Response> {
  let made: NamedFile | undefined
  let first: IteratorResult<string, unknown> | undefined
  const failed = await answering(async () => {
    const result = await work()
    if (!result.ok) return result
    made = result.value
    // What goes wrong from the beginning can still be told.
    first = await made.text.next()
    return { ok: true, value: true }
  })
  if (!made || !first) return failed
  return new Response(streamOf(first, made.text), {
    headers: {
      'content-type': made.type,
      'content-disposition': `attachment; filename="${made.name}"`,
      'cache-control': 'no-store',
    },
  })
}

function streamOf(
  first: IteratorResult<string, unknown>,
  pieces: AsyncGenerator<string>,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder()
  let next: Promise<IteratorResult<string, unknown>> = Promise.resolve(first)
  return new ReadableStream(
    {
      async pull(controller) {
        const { value, done } = await next
        if (done) return controller.close()
        controller.enqueue(encoder.encode(value))
        next = pieces.next()
        // Told when it is asked for, not before.
        next.catch(() => undefined)
      },
      // Nobody wants the rest.
      cancel: () => void pieces.return(undefined),
    },
    { highWaterMark: 0 },
  )
}

/** A value as a JSON file; undefined where there is nothing of that name any more. */
export const jsonFile = (name: string, work: () => Promise<unknown>): Promise<Response> =>
  file(async () => {
    const value = await work()
    return value === undefined
      ? fail('not-found', 'What this address names is not there any more.')
      : {
          ok: true,
          value: {
            name,
            type: 'application/json',
            text: once(`${JSON.stringify(value, null, 2)}\n`),
          },
        }
  })

async function* once(text: string): AsyncGenerator<string> {
  yield await Promise.resolve(text)
}

/** The JSON of a request, as plain values. */
export const jsonOf = async (request: Request): Promise<Result<unknown>> =>
  jsonIn(await request.arrayBuffer())
