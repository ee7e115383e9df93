import { answering, jsonOf } from '@/server/answer'
import { choiceSchema, chooseSchool } from '@/server/benchSchool'
import { checked } from '@/server/outside'

/** Another school for an open bench. */
export function POST(
  request: Request,
  { params }: { params: Promise<{ sessionId: string }> },
): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    const json = await jsonOf(request)
    if (!json.ok) return json
    const read = await checked(choiceSchema, json.value)
    if (!read.ok) return read
    return chooseSchool(sessionId, read.value)
  })
}
