import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { puzzleById } from '@/core/catalog'
import { Schools } from '@/features/schools/Schools'
import { settingsFor } from '@/core/settings'
import { decoded } from '@/server/address'
import { schoolsFor } from '@/core/schools'
import { keptSchools } from '@/server/ownSchools'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'
import { surveysOf } from '@/server/surveys'

export const metadata: Metadata = { title: 'Schools' }

/** The methods that fit one puzzle. */
export default async function SchoolsOfPage({ params }: { params: Promise<{ puzzleId: string }> }) {
  const asked = decoded((await params).puzzleId)
  if (asked === undefined) notFound()
  const profileId = await solverId()
  const settings = await readSettings(profileId)
  const puzzle = puzzleById(asked)
  if (!puzzle.ok) notFound()
  const own = await keptSchools(profileId, asked)
  const ids = [...schoolsFor(asked), ...own.map(({ school }) => school)].map(({ id }) => id)
  const surveys = await surveysOf(profileId, asked, [...new Set(ids)])
  return (
    <WithOwnPuzzles puzzleId={asked}>
      <Schools surveys={surveys} puzzleId={asked} settings={settingsFor(settings, asked)} />
    </WithOwnPuzzles>
  )
}
