import type { Metadata } from 'next'
import { Family } from '@/features/anatomy/Family'

export const metadata: Metadata = { title: 'Anatomy' }

export default function AnatomyIndexPage() {
  return <Family />
}
