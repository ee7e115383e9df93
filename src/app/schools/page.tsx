import type { Metadata } from 'next'
import { SchoolIndex } from '@/features/schools/SchoolIndex'
import { ownPuzzleNames } from '@/server/ownPuzzles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Schools' }

export default async function SchoolsPage() {
  return <SchoolIndex own={await ownPuzzleNames(await solverId())} />
}
