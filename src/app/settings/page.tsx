import type { Metadata } from 'next'
import { SettingsScreen } from '@/features/settings/SettingsScreen'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Settings' }

export default async function SettingsPage() {
  return <SettingsScreen settings={await readSettings(await defaultProfile())} />
}
