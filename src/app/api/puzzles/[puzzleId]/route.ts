import { jsonFile } from '@/server/answer'
import { exportPuzzle } from '@/server/exportCopy'
import { solverId } from '@/server/solver'

const OWN_ID = /^own-[0-9a-f]{1,40}$/

/** A puzzle file as it was put on the shelf. */
export function GET(
  _: Request,
  { params }: { params: Promise<{ puzzleId: string }> },
): Promise<Response> {
  return jsonFile('puzzle.json', async () => {
    const { puzzleId } = await params
    return OWN_ID.test(puzzleId) ? await exportPuzzle(await solverId(), puzzleId) : undefined
  })
}
