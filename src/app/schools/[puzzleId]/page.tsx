import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { puzzleById } from '@/core/catalog'
import { Schools } from '@/features/schools/Schools'
import { decoded } from '@/server/address'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Schools' }

/** The methods that fit one puzzle. */
export default async function SchoolsOfPage({ params }: { params: Promise<{ puzzleId: string }> }) {
  const asked = decoded((await params).puzzleId)
  if (asked === undefined) notFound()
  const settings = await readSettings(await defaultProfile())
  const puzzle = puzzleById(asked)
  if (!puzzle.ok) notFound()
  return (
    <WithOwnPuzzles>
      <Schools puzzleId={asked} settings={settings} />
    </WithOwnPuzzles>
  )
}
