import type { Metadata } from 'next'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { RepairScreen } from '@/features/algorithms/RepairScreen'
import { puzzleAsked, valueOf, type Asked } from '../../asked'

export const metadata: Metadata = { title: 'Mend a sequence' }

export default async function RepairPage({ params, searchParams }: Asked) {
  const { puzzleId, settings } = await puzzleAsked(params)
  return (
    <WithOwnPuzzles puzzleId={puzzleId}>
      <RepairScreen
        puzzleId={puzzleId}
        heard={(await valueOf(searchParams, 'heard')).slice(0, 4000)}
        settings={settings}
      />
    </WithOwnPuzzles>
  )
}
