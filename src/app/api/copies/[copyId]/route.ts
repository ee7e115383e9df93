import { jsonFile } from '@/server/answer'
import { exportCopy } from '@/server/exportCopy'
import { isId } from '@/server/outside'
import { solverId } from '@/server/solver'

/** A copy and its benches as a file. */
export function GET(
  _: Request,
  { params }: { params: Promise<{ copyId: string }> },
): Promise<Response> {
  return jsonFile('merry-lantern-copy.json', async () => {
    const { copyId } = await params
    return isId(copyId) ? await exportCopy(await solverId(), copyId) : undefined
  })
}
