import type { Metadata } from 'next'
import { Shelf } from '@/features/shelf/Shelf'
import { standingOf } from '@/features/shelf/standing'
import { shelf } from '@/server/copies'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Shelf' }

export default async function ShelfPage() {
  const profileId = await defaultProfile()
  const [copies, settings] = await Promise.all([shelf(profileId), readSettings(profileId)])
  const entries = await Promise.all(
    copies.map(async (copy) => ({ copy, standing: await standingOf(profileId, copy) })),
  )
  return <Shelf entries={entries} marks={settings.marks} />
}
