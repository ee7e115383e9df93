import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { puzzleById } from '@/core/catalog'
import { splitId } from '@/core/catalog/setting'
import { Anatomy } from '@/features/anatomy/Anatomy'
import { settingsFor } from '@/core/settings'
import { findCopy } from '@/server/copies'
import { puzzleOf } from '@/server/damage'
import { decoded } from '@/server/address'
import { isId } from '@/server/id'
import { DamagedPage } from '@/app/DamagedPage'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Anatomy' }

interface Asked {
  params: Promise<{ puzzleId: string }>
  searchParams: Promise<Partial<Record<'turns' | 'piece' | 'copy', string | string[]>>>
}

/** A puzzle by its id, or a copy on the shelf by its own; a copy with circles also in another setting. */
export default async function AnatomyPage({ params, searchParams }: Asked) {
  const [{ puzzleId: raw }, { turns, piece, copy: copyAsked }] = await Promise.all([
    params,
    searchParams,
  ])
  const asked = decoded(raw)
  if (asked === undefined) notFound()
  const profileId = await solverId()
  const copyId = isId(asked) ? asked : [copyAsked ?? ''].flat()[0]
  const [found, settings] = await Promise.all([
    isId(copyId) ? findCopy(profileId, copyId) : undefined,
    readSettings(profileId),
  ])
  const isSame = found && (copyId === asked || splitId(found.puzzleId).file === splitId(asked).file)
  const copy = isSame ? found : undefined
  const puzzleId = copy && copyId === asked ? copy.puzzleId : asked
  const puzzle = copy && copyId === asked ? puzzleOf(copy) : puzzleById(puzzleId)
  if (copy && !puzzle.ok)
    return <DamagedPage what={copy.name} problem={puzzle.problem} copyId={copy.id} />
  if (!puzzle.ok) notFound()
  const { definition } = puzzle.value
  return (
    <WithOwnPuzzles puzzleId={puzzleId}>
      <Anatomy
        key={asked}
        given={{
          puzzleId,
          title: copy?.name ?? definition.name,
          scheme: copy?.scheme ?? definition.colours,
          copyId: copy?.id,
          turns: [turns ?? ''].flat()[0],
          piece: [piece ?? ''].flat()[0],
        }}
        settings={settingsFor(settings, puzzleId)}
      />
    </WithOwnPuzzles>
  )
}
