import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { puzzleById } from '@/core/catalog'
import { Schools } from '@/features/schools/Schools'
import { settingsFor } from '@/core/settings'
import { decoded } from '@/server/address'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Schools' }

/** The methods that fit one puzzle. */
export default async function SchoolsOfPage({ params }: { params: Promise<{ puzzleId: string }> }) {
  const asked = decoded((await params).puzzleId)
  if (asked === undefined) notFound()
  const settings = await readSettings(await solverId())
  const puzzle = puzzleById(asked)
  if (!puzzle.ok) notFound()
  return (
    <WithOwnPuzzles puzzleId={asked}>
      <Schools puzzleId={asked} settings={settingsFor(settings, asked)} />
    </WithOwnPuzzles>
  )
}
