import { fail, ok } from '@/core/result'
import { answering } from '@/server/answer'
import { findSession } from '@/server/benchSessions'
import { isId } from '@/server/id'
import { benchEnd } from '@/server/leftOff'
import { solverId } from '@/server/solver'

/** Why nothing more is turned on a bench, and where its copy stands now; null while it is open. */
export function GET(
  _: Request,
  { params }: { params: Promise<{ sessionId: string }> },
): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    const profileId = await solverId()
    if (!isId(sessionId) || !(await findSession(profileId, sessionId)))
      return fail('not-found', 'This bench is not there any more.')
    return ok((await benchEnd(profileId, sessionId)) ?? null)
  })
}
