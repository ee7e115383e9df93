import type { Metadata } from 'next'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { AlgorithmShelf } from '@/features/algorithms/AlgorithmShelf'
import { keptAlgorithms, ownAlgorithms } from '@/server/algorithms'
import { puzzleAsked } from '../asked'

export const metadata: Metadata = { title: 'Algorithms' }

/** The two shelves of a puzzle: what its schools know, and what its solver keeps. */
export default async function AlgorithmShelfPage({
  params,
}: {
  params: Promise<{ puzzleId: string }>
}) {
  const { puzzleId, profileId, settings } = await puzzleAsked(params)
  const [own, kept] = await Promise.all([
    ownAlgorithms(profileId, puzzleId),
    keptAlgorithms(profileId, puzzleId),
  ])
  return (
    <WithOwnPuzzles puzzleId={puzzleId}>
      <AlgorithmShelf
        puzzleId={puzzleId}
        settings={settings}
        own={own}
        unread={kept.length - own.length}
      />
    </WithOwnPuzzles>
  )
}
