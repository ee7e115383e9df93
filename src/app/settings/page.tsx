import type { Metadata } from 'next'
import { SettingsScreen } from '@/features/settings/SettingsScreen'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Settings' }

export default async function SettingsPage() {
  return <SettingsScreen settings={await readSettings(await solverId())} />
}
