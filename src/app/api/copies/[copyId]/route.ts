import { fail, ok } from '@/core/result'
import { file } from '@/server/answer'
import { exportCopy } from '@/server/exportCopy'
import { isId } from '@/server/id'
import { solverId } from '@/server/solver'

/** A copy and its benches as a file. */
export function GET(
  _: Request,
  { params }: { params: Promise<{ copyId: string }> },
): Promise<Response> {
  return file(async () => {
    const { copyId } = await params
    const text = isId(copyId) ? await exportCopy(await solverId(), copyId) : undefined
    return text === undefined
      ? fail('not-found', 'What this address names is not there any more.')
      : ok({ name: 'merry-lantern-copy.json', type: 'application/json', text })
  })
}
