import type { Metadata } from 'next'
import { AlgorithmIndex } from '@/features/algorithms/AlgorithmIndex'
import { algorithmCounts } from '@/server/algorithms'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Algorithms' }

export default async function AlgorithmsPage() {
  return <AlgorithmIndex counts={await algorithmCounts(await solverId())} />
}
