import type { Metadata } from 'next'
import { Family } from '@/features/anatomy/Family'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Anatomy' }

export default async function AnatomyIndexPage() {
  // Puzzles of the solver's own become known with the profile.
  await solverId()
  return <Family />
}
