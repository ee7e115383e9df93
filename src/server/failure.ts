/** What is told where something went wrong for a reason that people can do something about. */
import { fail, type Result } from '../core/result'
import { Busy, FULL, isAway, isFull } from './pool'

/** Someone has to be chosen before this can be answered. */
export class NobodyChosen extends Error {}

export const NOBODY = fail('nobody', 'Choose first who is solving: open a page of Merry Lantern.')

const BUSY = fail('busy', 'Others are just being given their files. Try again in a moment.')

const AWAY = fail('away', 'The database does not answer now. What you did is kept on this page.')

/** While the database is away it is said so; what is really wrong is not hidden: it is thrown again. */
export function failureOf(error: unknown, away = AWAY): Result<never> {
  if (error instanceof NobodyChosen) return NOBODY
  if (error instanceof Busy) return BUSY
  if (isFull(error)) return FULL
  if (isAway(error)) return away
  throw error
}
