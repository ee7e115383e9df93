/**
 * What is sent, before anything else reads it: how long it is, how deep its lists lie and how many values they hold is
 * known here, in one walk over its bytes. So no one can send what stops the thread on which everyone is answered.
 */
import type { IncomingMessage } from 'node:http'
import { Readable } from 'node:stream'
import { fail, ok, type Result } from '../core/result'
import { LONGEST_BODY, sizeWords } from '../server/limits'

/** Deeper and more than anything that is sent here has. */
const DEEPEST = 64
const MOST_VALUES = 150_000
/** No action takes as many. */
const MOST_GIVEN = 100
/** What is no JSON: nothing of it is long. */
const LONGEST_OTHER = 64_000

const NO_BODY = ['GET', 'HEAD', 'OPTIONS']

/** Reads the whole body; undefined where there is none. A problem if it may not go on. */
export async function bodyOf(request: IncomingMessage): Promise<Result<Buffer | undefined>> {
  if (NO_BODY.includes(request.method ?? '')) return ok(undefined)
  const announced = request.headers['content-length']
  if (announced === undefined)
    return request.headers['transfer-encoding'] === undefined
      ? ok(undefined)
      : fail(
          'no-length',
          'How long it is must be said before it is sent: Content-Length is missing.',
        )
  const length = Number(announced)
  const isJson = /^(application\/json|text\/)/.test(request.headers['content-type'] ?? '')
  const most = isJson ? LONGEST_BODY : LONGEST_OTHER
  if (!(length <= most))
    return fail('too-large', `What was sent is larger than ${sizeWords(most)}.`)
  if (length === 0) return ok(undefined)
  const body = await readAhead(request, length)
  if (!body) return fail('cut-off', 'What was sent has not arrived whole.')
  const isAction = request.headers['next-action'] !== undefined
  return (isJson ? shapeProblem(body, isAction) : undefined) ?? ok(body)
}

/** As if it had never been read: a stream that has been is refused by whoever makes a request of it. */
export async function putBack(request: IncomingMessage, body: Buffer): Promise<void> {
  const unread = new Readable({ read: () => undefined })
  unread.push(body)
  unread.push(null)
  // What the other stream still has to tell about them it tells itself: then they are the request's alone.
  await new Promise((told) => setImmediate(told))
  const { _readableState } = unread as unknown as { _readableState: object }
  Object.assign(request, { _readableState, _read: () => undefined })
}

/** The bytes that were announced, before the request is at its end; undefined where it breaks off. */
function readAhead(request: IncomingMessage, length: number): Promise<Buffer | undefined> {
  return new Promise((resolve) => {
    const pieces: Buffer[] = []
    let got = 0
    const settle = (body: Buffer | undefined) => {
      request.off('readable', onReadable)
      request.off('close', onClose)
      request.off('error', onClose)
      resolve(body)
    }
    const onClose = () => settle(undefined)
    // What is read last leaves the request open, so that all of it can be put back.
    const onReadable = () => {
      while (got < length) {
        const piece = request.read() as Buffer | null
        if (piece === null) return
        pieces.push(piece)
        got += piece.length
      }
      request.off('readable', onReadable)
      whenWhole()
    }
    // The bytes are there a moment before the request knows that they were the last.
    const whenWhole = () => {
      if (request.complete) settle(Buffer.concat(pieces))
      else if (!request.destroyed) setImmediate(whenWhole)
    }
    request.on('readable', onReadable)
    request.on('close', onClose)
    request.on('error', onClose)
  })
}

/**
 * Of JSON, or of what looks like it: what is none is refused by whoever reads it.
 *
 * @param isAction whether it is a list of what an action is given: whatever else would stop those who read it
 */
export function shapeProblem(body: Uint8Array, isAction = false): Result<never> | undefined {
  let [depth, values, given] = [0, 0, 0]
  let isText = false
  for (let at = 0; at < body.length; at++) {
    const sign = body[at]
    if (isText) {
      if (sign === BACKSLASH) {
        if (isNothing(body, at + 1)) return UNSEEN
        at++
      } else if (sign === QUOTE) isText = false
    } else if (sign === QUOTE) isText = true
    else if (sign === BRACKET || sign === BRACE) {
      values++
      if (++depth > DEEPEST)
        return fail('bad-input', `Lists lie in each other more than ${DEEPEST} deep.`)
    } else if (sign === END_OF_LIST || sign === END_OF_OBJECT) depth--
    else if (sign === COMMA) {
      values++
      if (depth === 1) given++
    }
  }
  if (isAction && (body[0] !== BRACKET || given >= MOST_GIVEN))
    return fail('bad-input', 'What was sent is no list that an action takes.')
  return values > MOST_VALUES
    ? fail('bad-input', `There are more than ${MOST_VALUES} values in it.`)
    : undefined
}

/** `u0000`, the letter that no text of the database can hold. */
const isNothing = (body: Uint8Array, at: number): boolean =>
  NOTHING.every((sign, i) => body[at + i] === sign)

const NOTHING = [...new TextEncoder().encode('u0000')]
const UNSEEN = fail('bad-input', 'There is a sign in it that no one can see.')

const [QUOTE, BACKSLASH, COMMA] = [34, 92, 44]
const [BRACKET, END_OF_LIST, BRACE, END_OF_OBJECT] = [91, 93, 123, 125]
