import { exportAlgorithms } from '@/server/algorithms'
import { jsonFile } from '@/server/answer'
import { decoded } from '@/server/address'
import { solverId } from '@/server/solver'
import { puzzleById } from '@/core/catalog'

/** The sequences of a person's own for a puzzle, as a file. */
export function GET(
  _: Request,
  { params }: { params: Promise<{ puzzleId: string }> },
): Promise<Response> {
  return jsonFile('algorithms.json', async () => {
    const puzzleId = decoded((await params).puzzleId)
    const profileId = await solverId()
    return puzzleId !== undefined && puzzleById(puzzleId).ok
      ? await exportAlgorithms(profileId, puzzleId)
      : undefined
  })
}
