import { fail, ok } from '@/core/result'
import { answering } from '@/server/answer'
import { findImport, stopImport } from '@/server/imports'
import { isId } from '@/server/outside'
import { solverId } from '@/server/solver'

interface Asked {
  params: Promise<{ importId: string }>
}

const gone = fail('not-found', 'This import is not under way any more.')

/** How far it is, and what came of it. */
export function GET(_: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { importId } = await params
    const found = isId(importId) ? await findImport(await solverId(), importId) : undefined
    return found ? ok(found) : gone
  })
}

/** Stops it; then nothing of the file is kept. */
export function DELETE(_: Request, { params }: Asked): Promise<Response> {
  return answering(async () => {
    const { importId } = await params
    return isId(importId) && (await stopImport(await solverId(), importId)) ? ok(true) : gone
  })
}
