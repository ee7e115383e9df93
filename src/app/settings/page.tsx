import type { Metadata } from 'next'
import { puzzleById } from '@/core/catalog'
import { SettingsScreen } from '@/features/settings/SettingsScreen'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Settings' }

export default async function SettingsPage() {
  const settings = await readSettings(await solverId())
  const puzzleNames = Object.fromEntries(
    Object.keys(settings.smallLetters).flatMap((id) => {
      // A puzzle file that was removed has no name any more.
      const puzzle = puzzleById(id)
      return puzzle.ok ? [[id, puzzle.value.definition.name]] : []
    }),
  )
  return <SettingsScreen settings={settings} puzzleNames={puzzleNames} />
}
