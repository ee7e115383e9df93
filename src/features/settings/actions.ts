'use server'

import { revalidatePath } from 'next/cache'
import { ok, type Result } from '@/core/result'
import { settingsSchema, type Settings } from '@/core/settings'
import { checked } from '@/server/outside'
import { readSettings, writeSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export async function saveSettings(input: unknown): Promise<Result<Settings>> {
  const settings = await checked(settingsSchema, input)
  if (!settings.ok) return settings
  const profileId = await solverId()
  const written = await writeSettings(profileId, settings.value)
  if (!written.ok) return written
  revalidatePath('/', 'layout')
  return ok(await readSettings(profileId))
}
