import { revalidatePath } from 'next/cache'
import { object, string } from 'yup'
import { fail } from '@/core/result'
import { answering, jsonOf } from '@/server/answer'
import { isId } from '@/server/id'
import { takeUp } from '@/server/leftOff'
import { checked } from '@/server/outside'
import { solverId } from '@/server/solver'

const schema = object({ instead: string().max(40) }).noUnknown()

/** Takes up a bench that was left off, or says which one of the copy runs. */
export function POST(
  request: Request,
  { params }: { params: Promise<{ sessionId: string }> },
): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    if (!isId(sessionId)) return fail('not-found', 'This bench is not there any more.')
    const json = await jsonOf(request)
    if (!json.ok) return json
    const read = await checked(schema, json.value)
    if (!read.ok) return read
    const taken = await takeUp(await solverId(), sessionId, read.value.instead)
    if (taken.ok) revalidatePath('/', 'layout')
    return taken
  })
}
