import type { Metadata } from 'next'
import { SchoolIndex } from '@/features/schools/SchoolIndex'
import { defaultProfile } from '@/server/profiles'

export const metadata: Metadata = { title: 'Schools' }

export default async function SchoolsPage() {
  // Puzzles of the solver's own become known with the profile.
  await defaultProfile()
  return <SchoolIndex />
}
