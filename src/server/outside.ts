/** What comes from outside meets a schema here; the first thing wrong is told with its field. */
import { ValidationError, type Schema } from 'yup'
import { BOUNDS, plain, type Bounds } from '../core/plain'
import { fail, ok, type Result } from '../core/result'
import { LONGEST_BODY, sizeWords } from './limits'

/** @param bounds how much of it there may be, where it may be more than usual */
export async function checked<T>(
  schema: Schema<T>,
  input: unknown,
  bounds: Bounds = BOUNDS,
): Promise<Result<T>> {
  const given = plain(input, bounds)
  if (!given.ok) return given
  try {
    return ok(await schema.validate(given.value, { stripUnknown: false }))
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return fail('bad-input', error.errors[0], { field: error.path ?? '' })
  }
}

/**
 * What was sent, as plain values. How long it is and how deep its lists lie is known by then: nothing comes this far
 * that is not bounded (src/front/body.ts).
 */
export function jsonIn(bytes: ArrayBuffer | Uint8Array): Result<unknown> {
  if (bytes.byteLength > LONGEST_BODY)
    return fail('too-large', `What was sent is larger than ${sizeWords(LONGEST_BODY)}.`)
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return ok(JSON.parse(text) as unknown)
  } catch (error) {
    return fail(
      'bad-input',
      error instanceof TypeError
        ? 'What was sent is no text in UTF-8.'
        : 'What was sent is not well-formed JSON.',
    )
  }
}
