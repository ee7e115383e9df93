import type { Metadata } from 'next'
import { SchoolIndex } from '@/features/schools/SchoolIndex'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Schools' }

export default async function SchoolsPage() {
  // Puzzles of the solver's own become known with the profile.
  await solverId()
  return <SchoolIndex />
}
