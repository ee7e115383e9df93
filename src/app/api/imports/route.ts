import { ok } from '@/core/result'
import { answering } from '@/server/answer'
import { importKindOf, jobUnderWay } from '@/server/jobs'
import { solverId } from '@/server/solver'

/**
 * The import of a kind that is under way, or null. Files are taken by the door itself (src/front/uploads.ts), before
 * anything could gather them in memory.
 */
export function GET(request: Request): Promise<Response> {
  return answering(async () => {
    const asked = importKindOf(new URL(request.url).searchParams)
    return asked.ok ? ok((await jobUnderWay(await solverId(), ...asked.value)) ?? null) : asked
  })
}
