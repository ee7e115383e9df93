import type { Metadata } from 'next'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { SequenceScreen } from '@/features/algorithms/SequenceScreen'
import { ownAlgorithms } from '@/server/algorithms'
import { shelf } from '@/server/copies'
import { puzzleAsked, valueOf, type Asked } from '../../asked'

export const metadata: Metadata = { title: 'One sequence' }

/** What one sequence does on a puzzle: the turns stand in the address. */
export default async function SequencePage({ params, searchParams }: Asked) {
  const { puzzleId, profileId, settings } = await puzzleAsked(params)
  const turns = (await valueOf(searchParams, 'turns')).slice(0, 4000)
  const [own, copies] = await Promise.all([ownAlgorithms(profileId, puzzleId), shelf(profileId)])
  const benches = copies.flatMap((copy) =>
    copy.puzzleId === puzzleId && copy.openSession
      ? [{ id: copy.openSession, name: copy.name }]
      : [],
  )
  return (
    <WithOwnPuzzles puzzleId={puzzleId}>
      <SequenceScreen
        key={turns}
        puzzleId={puzzleId}
        text={turns}
        settings={settings}
        own={own}
        benches={benches}
      />
    </WithOwnPuzzles>
  )
}
