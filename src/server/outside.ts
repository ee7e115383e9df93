/** What comes from outside meets a schema here; the first thing wrong is told with its field. */
import { ValidationError, type Schema } from 'yup'
import { BOUNDS, plain, type Bounds } from '../core/plain'
import { fail, ok, type Result } from '../core/result'

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
