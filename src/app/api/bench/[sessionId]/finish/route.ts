import { revalidatePath } from 'next/cache'
import { fail } from '@/core/result'
import { answering } from '@/server/answer'
import { finishSession } from '@/server/finish'
import { isId } from '@/server/id'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

/** Replays the stored events and logs the solve; its id is returned, however often it is asked for. */
export function POST(
  _: Request,
  { params }: { params: Promise<{ sessionId: string }> },
): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    if (!isId(sessionId)) return fail('not-found', 'This bench is not there any more.')
    const profileId = await solverId()
    const { nickname } = await readSettings(profileId)
    const logged = await finishSession(profileId, sessionId, nickname)
    if (logged.ok) revalidatePath('/', 'layout')
    return logged
  })
}
