'use server'

import { ownAlgorithms, type OwnAlgorithm } from '@/server/algorithms'
import { defaultProfile } from '@/server/profiles'

/** The sequences of a puzzle that are kept, the oldest first. */
export async function ownSequences(puzzleId: unknown): Promise<OwnAlgorithm[]> {
  const id = typeof puzzleId === 'string' ? puzzleId.slice(0, 80) : ''
  return ownAlgorithms(await defaultProfile(), id)
}
