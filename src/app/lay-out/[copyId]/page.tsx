import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { LayOut, type Way } from '@/features/lay-out/LayOut'
import { settingsFor } from '@/core/settings'
import { findCopy } from '@/server/copies'
import { puzzleOf } from '@/server/damage'
import { isId } from '@/server/id'
import { DamagedPage } from '@/app/DamagedPage'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Lay out' }

const WAYS: readonly Way[] = ['scramble', 'colours', 'pieces']

export default async function LayOutPage({
  params,
  searchParams,
}: {
  params: Promise<{ copyId: string }>
  searchParams: Promise<{ way?: string | string[] }>
}) {
  const { copyId } = await params
  const { way } = await searchParams
  if (!isId(copyId)) notFound()
  const profileId = await solverId()
  const [copy, settings] = await Promise.all([findCopy(profileId, copyId), readSettings(profileId)])
  if (!copy) notFound()
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return <DamagedPage what={copy.name} problem={puzzle.problem} copyId={copy.id} />
  return (
    <WithOwnPuzzles puzzleId={copy.puzzleId}>
      <LayOut
        copy={copy}
        settings={settingsFor(settings, copy.puzzleId)}
        way={WAYS.find((each) => each === way) ?? 'scramble'}
      />
    </WithOwnPuzzles>
  )
}
