import type { Metadata } from 'next'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { Finder } from '@/features/algorithms/Finder'
import { puzzleAsked, valueOf, type Asked } from '../../asked'

export const metadata: Metadata = { title: 'Find a sequence' }

export default async function FinderPage({ params, searchParams }: Asked) {
  const { puzzleId, settings } = await puzzleAsked(params)
  return (
    <WithOwnPuzzles puzzleId={puzzleId}>
      <Finder
        puzzleId={puzzleId}
        asked={await valueOf(searchParams, 'wish')}
        like={(await valueOf(searchParams, 'like')).slice(0, 4000)}
        settings={settings}
      />
    </WithOwnPuzzles>
  )
}
