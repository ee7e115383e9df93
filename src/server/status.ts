/** The status of HTTP that fits a result. */
import type { Result } from '../core/result'

const STATUS: ReadonlyMap<string, number> = new Map([
  ['not-found', 404],
  ['bad-method', 405],
  ['closed', 409],
  ['ahead', 409],
  ['no-length', 411],
  ['too-large', 413],
  ['foreign', 403],
  ['nobody', 401],
  ['away', 503],
  ['busy', 503],
  ['full', 507],
])

export const statusOf = (result: Result<unknown>): number =>
  result.ok ? 200 : (STATUS.get(result.problem.code) ?? 400)
