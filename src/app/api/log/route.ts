import { fail } from '@/core/result'
import {
  FILE_LIMIT,
  importSolves,
  puzzlesOf,
  readLogFile,
  writeCsv,
  writeJson,
} from '@/server/logFile'
import { defaultProfile } from '@/server/profiles'
import { listSolves } from '@/server/solves'

const MOST_SOLVES = 1_000_000

export async function GET(request: Request): Promise<Response> {
  const kind = new URL(request.url).searchParams.get('as') ?? 'json'
  if (kind !== 'json' && kind !== 'csv')
    return Response.json(fail('bad-input', 'as must be json or csv.', { field: 'as' }), {
      status: 400,
    })
  const profileId = await defaultProfile()
  const solves = await listSolves(profileId, MOST_SOLVES)
  const text =
    kind === 'json' ? writeJson(solves, await puzzlesOf(profileId, solves)) : writeCsv(solves)
  return new Response(text, {
    headers: {
      'content-type': kind === 'json' ? 'application/json' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="merry-lantern-log.${kind}"`,
    },
  })
}

export async function POST(request: Request): Promise<Response> {
  if (Number(request.headers.get('content-length') ?? 0) > 4 * FILE_LIMIT)
    return Response.json(fail('bad-file', 'The file is larger than 20 MB.'), { status: 413 })
  const profileId = await defaultProfile()
  const read = readLogFile(await request.text())
  if (!read.ok) return Response.json(read, { status: 400 })
  const stored = await importSolves(profileId, read.value)
  return Response.json(stored, { status: stored.ok ? 200 : 400 })
}
