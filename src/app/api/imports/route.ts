import { fail, ok } from '@/core/result'
import { answering, textOf } from '@/server/answer'
import { BACKUP_LIMIT } from '@/server/backup'
import { beginImport, jobUnderWay, type ImportKind } from '@/server/jobs'
import { FILE_LIMIT } from '@/server/logFile'
import { solverId } from '@/server/solver'

/** Bytes of the largest file that can hold so many characters with few signs beyond the plainest. */
const LONGEST: Record<ImportKind, number> = { log: 2 * FILE_LIMIT, backup: 2 * BACKUP_LIMIT }

const noKind = fail('bad-input', 'kind must be log or backup.', { field: 'kind' })

function kindOf(request: Request): ImportKind | undefined {
  const kind = new URL(request.url).searchParams.get('kind')
  return kind === 'log' || kind === 'backup' ? kind : undefined
}

/** The import of a kind that is under way, or null. */
export function GET(request: Request): Promise<Response> {
  return answering(async () => {
    const kind = kindOf(request)
    return kind ? ok((await jobUnderWay(await solverId(), kind)) ?? null) : noKind
  })
}

/** Takes a file; the id by which to ask how far it is is returned. */
export function POST(request: Request): Promise<Response> {
  return answering(async () => {
    const kind = kindOf(request)
    if (!kind) return noKind
    const text = await textOf(request, LONGEST[kind])
    // A text of the database cannot hold it, and no file of ours has it.
    if (text.ok && text.value.includes('\0'))
      return fail('bad-file', 'The file has a sign in it that no text has.', { field: 'file' })
    return text.ok ? ok(await beginImport(await solverId(), kind, text.value)) : text
  })
}
