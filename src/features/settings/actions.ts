'use server'

import { revalidatePath } from 'next/cache'
import { ok, type Result } from '@/core/result'
import { settingsSchema, type Settings } from '@/core/settings'
import { checked } from '@/server/outside'
import { defaultProfile, writeSettings } from '@/server/profiles'

export async function saveSettings(input: unknown): Promise<Result<Settings>> {
  const settings = await checked(settingsSchema, input)
  if (!settings.ok) return settings
  await writeSettings(await defaultProfile(), settings.value)
  revalidatePath('/', 'layout')
  return ok(settings.value)
}
