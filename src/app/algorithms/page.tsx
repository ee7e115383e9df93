import type { Metadata } from 'next'
import { AlgorithmIndex } from '@/features/algorithms/AlgorithmIndex'
import { algorithmCounts } from '@/server/algorithms'
import { ownPuzzleNames } from '@/server/ownPuzzles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Algorithms' }

export default async function AlgorithmsPage() {
  const profileId = await solverId()
  const [counts, own] = await Promise.all([algorithmCounts(profileId), ownPuzzleNames(profileId)])
  return <AlgorithmIndex counts={counts} own={own} />
}
