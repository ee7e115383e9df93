import type { Metadata } from 'next'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { AlgorithmShelf } from '@/features/algorithms/AlgorithmShelf'
import { ownAlgorithms } from '@/server/algorithms'
import { puzzleAsked } from '../asked'

export const metadata: Metadata = { title: 'Algorithms' }

/** The two shelves of a puzzle: what its schools know, and what its solver keeps. */
export default async function AlgorithmShelfPage({
  params,
}: {
  params: Promise<{ puzzleId: string }>
}) {
  const { puzzleId, profileId, settings } = await puzzleAsked(params)
  return (
    <WithOwnPuzzles>
      <AlgorithmShelf
        puzzleId={puzzleId}
        settings={settings}
        own={await ownAlgorithms(profileId, puzzleId)}
      />
    </WithOwnPuzzles>
  )
}
