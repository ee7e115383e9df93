import { fail, ok } from '@/core/result'
import { file } from '@/server/answer'
import { exportLog } from '@/server/exportLog'
import { solverId } from '@/server/solver'

/** The log as a file. A file to read in is taken by the door itself (src/front/uploads.ts). */
export function GET(request: Request): Promise<Response> {
  return file(async () => {
    const kind = new URL(request.url).searchParams.get('as') ?? 'json'
    if (kind !== 'json' && kind !== 'csv')
      return fail('bad-input', 'as must be json or csv.', { field: 'as' })
    return ok({
      name: `merry-lantern-log.${kind}`,
      type: kind === 'json' ? 'application/json' : 'text/csv; charset=utf-8',
      text: await exportLog(await solverId(), kind),
    })
  })
}
