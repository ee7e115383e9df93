import type { Metadata } from 'next'
import { Family } from '@/features/anatomy/Family'
import { ownPuzzleNames } from '@/server/ownPuzzles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Anatomy' }

export default async function AnatomyIndexPage() {
  return <Family own={await ownPuzzleNames(await solverId())} />
}
