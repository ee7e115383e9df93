import type { Metadata } from 'next'
import { SchoolIndex } from '@/features/schools/SchoolIndex'

export const metadata: Metadata = { title: 'Schools' }

export default function SchoolsPage() {
  return <SchoolIndex />
}
