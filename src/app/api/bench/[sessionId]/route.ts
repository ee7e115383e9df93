import { fail, ok } from '@/core/result'
import { answering, jsonOf } from '@/server/answer'
import { BATCH_BOUNDS, batchSchema } from '@/server/benchEventSchema'
import { appendEntries, appendQuickly, MOST_EVENTS } from '@/server/benchSessions'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { ownEntriesAfter } from '@/server/snapshots'
import { claimedId, solverId } from '@/server/solver'

interface Asked {
  params: Promise<{ sessionId: string }>
}

const gone = fail('not-found', 'This bench is not there any more.')

/** What is stored beyond the entries that the page knows. */
export function GET(request: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    const after = Number(new URL(request.url).searchParams.get('after') ?? '0')
    if (!Number.isInteger(after) || after < 0 || after > MOST_EVENTS)
      return fail('bad-input', 'after must be the number of known events.', { field: 'after' })
    if (!isId(sessionId)) return gone
    // Every open page asks every few seconds: who it is is found out only where the bench is not theirs.
    const claimed = await claimedId()
    const entries =
      (claimed && (await ownEntriesAfter(claimed, sessionId, after))) ??
      (await ownEntriesAfter(await solverId(), sessionId, after))
    return entries ? ok({ entries }) : gone
  })
}

/** Stores entries: an address of its own, so that a page that is older than the program can still send. */
export function POST(request: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { sessionId } = await params
    if (!isId(sessionId)) return gone
    const json = await jsonOf(request)
    if (!json.ok) return json
    const read = await checked(batchSchema, json.value, BATCH_BOUNDS)
    if (!read.ok) return read
    const { after, entries } = read.value
    const claimed = await claimedId()
    const quick = claimed && (await appendQuickly(claimed, sessionId, after, entries))
    return quick ? ok(quick) : appendEntries(await solverId(), sessionId, after, entries)
  })
}
