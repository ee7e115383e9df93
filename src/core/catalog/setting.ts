/** One shipped file stands for a puzzle in all its settings: `circle-3--front-left`, `circle-3--none`. */
import type { PuzzleDefinition } from '../puzzle/definition'
import { DIRECTIONS, directionOfName, type FaceName } from '../puzzle/directions'
import { capital, listed } from '../phrases'

const NONE = 'none'
const BEFORE = '--'

/** The id of the file, and the setting if one is given. */
export function splitId(id: string): { file: string; setting?: string } {
  const at = id.indexOf(BEFORE)
  return at < 0 ? { file: id } : { file: id.slice(0, at), setting: id.slice(at + BEFORE.length) }
}

/** The faces that a setting names as locked, or undefined if it is none. */
function readLocked(setting: string): FaceName[] | undefined {
  const names = setting === NONE ? [] : setting.split('-')
  const locked = DIRECTIONS.filter(({ name }) => names.includes(name)).map(({ name }) => name)
  return locked.length === names.length ? locked : undefined
}

/** The definition in a setting; undefined if it has no such setting. */
export function withSetting(
  definition: PuzzleDefinition,
  setting: string,
): PuzzleDefinition | undefined {
  if (definition.mechanism.kind !== 'circles') return undefined
  const locked = readLocked(setting)
  if (!locked) return undefined
  const told =
    locked.length === 0
      ? 'all free'
      : locked.length === DIRECTIONS.length
        ? 'all locked'
        : `${listed(locked.map((name) => directionOfName(name).adjective))} locked`
  return {
    ...definition,
    id: settingId(definition.id, locked),
    name: `${definition.name.split(';')[0]}; ${told}`,
    mechanism: { ...definition.mechanism, locked },
  }
}

/** The id of a puzzle with these faces locked. */
export function settingId(id: string, locked: readonly FaceName[]): string {
  const ordered = DIRECTIONS.filter(({ name }) => locked.includes(name)).map(({ name }) => name)
  return `${splitId(id).file}${BEFORE}${ordered.join('-') || NONE}`
}

/** Faces that can be set, with whether each is locked; undefined for a puzzle without settings. */
export function settingOf({
  mechanism,
}: PuzzleDefinition): { name: FaceName; label: string; locked: boolean }[] | undefined {
  if (mechanism.kind !== 'circles') return undefined
  return DIRECTIONS.map(({ name, adjective }) => ({
    name,
    label: capital(adjective),
    locked: mechanism.locked.includes(name),
  }))
}
