'use server'

import { ownAlgorithms, type OwnAlgorithm } from '@/server/algorithms'
import { solverId } from '@/server/solver'

/** The sequences of a puzzle that are kept, the oldest first. */
export async function ownSequences(puzzleId: unknown): Promise<OwnAlgorithm[]> {
  const id = typeof puzzleId === 'string' ? puzzleId.slice(0, 80) : ''
  return ownAlgorithms(await solverId(), id)
}
