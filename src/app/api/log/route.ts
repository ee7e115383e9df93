import { fail, ok } from '@/core/result'
import { answering, file, textOf } from '@/server/answer'
import {
  FILE_LIMIT,
  importSolves,
  puzzlesOf,
  readLogFile,
  writeCsv,
  writeJson,
} from '@/server/logFile'
import { solverId } from '@/server/solver'
import { listSolves } from '@/server/solves'

const MOST_SOLVES = 1_000_000

/** Bytes of the largest file that can hold so many characters with few signs beyond the plainest. */
const LONGEST_BODY = 2 * FILE_LIMIT

export function GET(request: Request): Promise<Response> {
  return file(async () => {
    const kind = new URL(request.url).searchParams.get('as') ?? 'json'
    if (kind !== 'json' && kind !== 'csv')
      return fail('bad-input', 'as must be json or csv.', { field: 'as' })
    const profileId = await solverId()
    const solves = await listSolves(profileId, MOST_SOLVES)
    return ok({
      name: `merry-lantern-log.${kind}`,
      type: kind === 'json' ? 'application/json' : 'text/csv; charset=utf-8',
      text:
        kind === 'json' ? writeJson(solves, await puzzlesOf(profileId, solves)) : writeCsv(solves),
    })
  })
}

/** Reads a file and waits until all of it is stored, or nothing; the page watches it instead (/api/imports). */
export function POST(request: Request): Promise<Response> {
  return answering(async () => {
    const text = await textOf(request, LONGEST_BODY)
    if (!text.ok) return text
    const profileId = await solverId()
    const read = await readLogFile(text.value)
    return read.ok ? importSolves(profileId, read.value) : read
  })
}
