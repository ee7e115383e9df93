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

/** Files are read one after another: each may take a while, and others come between their pieces. */
let before: Promise<unknown> = Promise.resolve()

export function POST(request: Request): Promise<Response> {
  return answering(async () => {
    const text = await textOf(request, LONGEST_BODY)
    if (!text.ok) return text
    const mine = before.then(async () => {
      const profileId = await solverId()
      const read = await readLogFile(text.value)
      return read.ok ? importSolves(profileId, read.value) : read
    })
    before = mine.catch(() => undefined)
    return mine
  })
}
