import type { Metadata } from 'next'
import { Shelf } from '@/features/shelf/Shelf'
import { careByCopy } from '@/server/care'
import { shelf } from '@/server/copies'
import { damagedPuzzles, ownPuzzleNames } from '@/server/ownPuzzles'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'
import { standings } from '@/server/standing'

export const metadata: Metadata = { title: 'Shelf' }

export default async function ShelfPage() {
  const profileId = await solverId()
  const [copies, settings, care, damaged, own] = await Promise.all([
    shelf(profileId),
    readSettings(profileId),
    careByCopy(profileId),
    damagedPuzzles(profileId),
    ownPuzzleNames(profileId),
  ])
  const standing = await standings(profileId, copies)
  const entries = copies.map((copy, i) => ({
    copy,
    standing: standing[i],
    care: care.get(copy.id) ?? [],
  }))
  return <Shelf entries={entries} damaged={damaged} own={own} marks={settings.marks} />
}
