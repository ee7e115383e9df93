import { fail, ok } from '@/core/result'
import { answering } from '@/server/answer'
import { findJob, stopJob } from '@/server/jobs'
import { isId } from '@/server/id'
import { solverId } from '@/server/solver'

interface Asked {
  params: Promise<{ jobId: string }>
}

const gone = fail('not-found', 'This is not under way any more.')

/** How far it is, and what came of it. */
export function GET(_: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { jobId } = await params
    const found = isId(jobId) ? await findJob(await solverId(), jobId) : undefined
    return found ? ok(found) : gone
  })
}

/** Stops it; then nothing of it is kept. */
export function DELETE(_: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { jobId } = await params
    return isId(jobId) && (await stopJob(await solverId(), jobId)) ? ok(true) : gone
  })
}
