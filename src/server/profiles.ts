/** Profiles and their settings. There is one default profile for now. */
import { DEFAULT_SETTINGS, settingsSchema, type Settings } from '../core/settings'
import { learnOwnPuzzles } from './ownPuzzles'
import { learnOwnSchools } from './ownSchools'
import { pool } from './pool'

/**
 * The id of the default profile, made at the first call. Every page and action begins with it, so here
 * the puzzles and schools of its own become known.
 */
export async function defaultProfile(): Promise<string> {
  const found = await pool().query<{ id: string }>(
    'select id from profiles order by created_at, id limit 1',
  )
  if (found.rows[0]) {
    await learnOwnPuzzles(found.rows[0].id)
    await learnOwnSchools(found.rows[0].id)
    return found.rows[0].id
  }
  const made = await pool().query<{ id: string }>(
    "insert into profiles (nickname) values ('Me') returning id",
  )
  return made.rows[0].id
}

/** Stored settings over the defaults, so that a new setting needs no migration. */
export async function readSettings(profileId: string): Promise<Settings> {
  const { rows } = await pool().query<{ value: Partial<Settings> }>(
    'select value from settings where profile_id = $1',
    [profileId],
  )
  const stored = rows[0]?.value
  const keys = { ...DEFAULT_SETTINGS.keys, ...stored?.keys }
  return settingsSchema.cast({ ...DEFAULT_SETTINGS, ...stored, keys }, { stripUnknown: true })
}

export async function writeSettings(profileId: string, value: Settings): Promise<void> {
  await pool().query(
    `insert into settings (profile_id, value) values ($1, $2)
     on conflict (profile_id) do update set value = excluded.value, updated_at = now()`,
    [profileId, JSON.stringify(value)],
  )
}
