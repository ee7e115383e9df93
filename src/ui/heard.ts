import { unstable_isUnrecognizedActionError as isUnknownAction } from 'next/navigation'
import { fail, type Result } from '@/core/result'

/**
 * Asks the server to do something. Where it does not answer, or has become another program since the page was
 * opened, that is said in a sentence instead of an error; what stands on the page stays.
 */
export async function heard<T>(ask: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await ask()
  } catch (error) {
    if (isUnknownAction(error))
      return fail(
        'old-page',
        'Merry Lantern was renewed since this page was opened. Reload the page.',
      )
    return fail(
      'away',
      'Merry Lantern does not answer now. Nothing was changed; try again in a moment.',
    )
  }
}
