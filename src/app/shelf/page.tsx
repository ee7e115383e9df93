import type { Metadata } from 'next'
import { Shelf } from '@/features/shelf/Shelf'
import { standingOf } from '@/features/shelf/standing'
import { careByCopy } from '@/server/care'
import { shelf } from '@/server/copies'
import { damagedPuzzles } from '@/server/ownPuzzles'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Shelf' }

export default async function ShelfPage() {
  const profileId = await defaultProfile()
  const [copies, settings, care, damaged] = await Promise.all([
    shelf(profileId),
    readSettings(profileId),
    careByCopy(profileId),
    damagedPuzzles(profileId),
  ])
  const entries = await Promise.all(
    copies.map(async (copy) => ({
      copy,
      standing: await standingOf(profileId, copy),
      care: care.get(copy.id) ?? [],
    })),
  )
  return (
    <WithOwnPuzzles>
      <Shelf entries={entries} damaged={damaged} marks={settings.marks} />
    </WithOwnPuzzles>
  )
}
