import type { Metadata } from 'next'
import { AlgorithmIndex } from '@/features/algorithms/AlgorithmIndex'
import { algorithmCounts } from '@/server/algorithms'
import { defaultProfile } from '@/server/profiles'

export const metadata: Metadata = { title: 'Algorithms' }

export default async function AlgorithmsPage() {
  return <AlgorithmIndex counts={await algorithmCounts(await defaultProfile())} />
}
