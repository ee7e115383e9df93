import type { Result } from '../core/result'

/** Told in one sentence; the command ends with code 1. */
export class Failure extends Error {}

/** The command was called wrongly; it ends with code 2. */
export class Usage extends Failure {}

/** The value, or a failure that says why not, with the character it stopped at. */
export function told<T>(result: Result<T>): T {
  if (result.ok) return result.value
  const { sentence, at } = result.problem
  throw new Failure(at === undefined ? sentence : `${sentence} (character ${at + 1})`)
}
