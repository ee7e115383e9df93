/**
 * The puzzles that are known by an id: those that are shipped (a new one is a file beside the others and
 * a line here), and those of the solver's own, once they are learned.
 */
import { compiledFrom, type Puzzle } from '../puzzle/compile'
import type { PuzzleDefinition } from '../puzzle/definition'
import { readDefinition } from '../puzzle/readDefinition'
import { fail, must, ok, type Result } from '../result'
import box332 from './boxes/box-3x3x2.json'
import box335 from './boxes/box-3x3x5.json'
import box445 from './boxes/box-4x4x5.json'
import cube2 from './boxes/cube-2.json'
import cube3 from './boxes/cube-3.json'
import cube4 from './boxes/cube-4.json'
import plus333 from './capped/plus-3x3x3.json'
import shift335 from './capped/shift-3x3x5.json'
import circle3 from './others/circle-3.json'
import tetra3 from './others/tetra-3.json'
import twin3 from './others/twin-3.json'
import bipyramid6 from './solids/bipyramid-6.json'
import diagonalHalf from './solids/diagonal-3x3x5-half.json'
import diagonal335 from './solids/diagonal-3x3x5.json'
import prism6 from './solids/prism-6.json'
import tilt3 from './solids/tilt-3.json'
import { isInReach, isReachLimited } from './reach'
import { splitId, withSetting } from './setting'

const files: readonly { readonly id: string; readonly name: string }[] = [
  cube2,
  cube3,
  cube4,
  box332,
  box335,
  box445,
  shift335,
  plus333,
  tilt3,
  prism6,
  bipyramid6,
  diagonal335,
  diagonalHalf,
  twin3,
  circle3,
  tetra3,
]

const definitions = new Map<string, PuzzleDefinition>()
/** Read when they are first asked for; undefined if they cannot be read. */
const own = new Map<string, () => PuzzleDefinition | undefined>()

/** A definition by its id, with a setting or without; a shipped one is checked at its first use. */
export function definitionById(id: string): PuzzleDefinition | undefined {
  if (isHidden(id)) return undefined
  const known = definitions.get(id)
  if (known) return known
  const { file: fileId, setting } = splitId(id)
  const file = files.find((each) => each.id === fileId)
  const plain = file ? must(readDefinition(file)) : own.get(fileId)?.()
  if (!plain) return undefined
  const definition = setting === undefined ? plain : withSetting(plain, setting)
  if (definition) definitions.set(id, definition)
  return definition
}

/** Whether it is someone else's. */
function isHidden(id: string): boolean {
  if (!isReachLimited()) return false
  const { file } = splitId(id)
  return own.has(file) && !isInReach('puzzles', file)
}

/**
 * Makes puzzles of the solver's own known by their ids, on the server, on the page and in its worker. An
 * id stands for one content for ever, so learning it again changes nothing.
 */
export function learnDefinitions(learned: readonly PuzzleDefinition[]): void {
  for (const definition of learned) own.set(definition.id, () => definition)
}

/** The same of one that need not be read before it is asked for. */
export function learnLater(id: string, read: () => PuzzleDefinition | undefined): void {
  let known: { readonly definition?: PuzzleDefinition } | undefined
  own.set(id, () => (known ??= { definition: read() }).definition)
}

/** Takes one of them out of the lists again. */
export function forgetDefinition(id: string): void {
  own.delete(id)
  definitions.delete(id)
  compiled.delete(id)
}

/** Whether one was learned, be it in reach or not. */
export const isLearned = (id: string): boolean => own.has(id)

/** Those that were learned and are in reach, in the order of their names. */
export const ownDefinitions = (): PuzzleDefinition[] =>
  [...own]
    .flatMap(([id, read]) => (isInReach('puzzles', id) ? (read() ?? []) : []))
    .sort((a, b) => a.name.localeCompare(b.name))

export const CATALOG_IDS: readonly string[] = files.map(({ id }) => id)

/** Ids and names, for lists that need no more. */
export const CATALOG_NAMES = files.map(({ id, name }) => ({ id, name }))

export const catalog = (): PuzzleDefinition[] =>
  CATALOG_IDS.map((id) => definitionById(id) as PuzzleDefinition)

const compiled = new Map<string, Puzzle>()

/** A puzzle by its id, compiled once. */
export function puzzleById(id: string): Result<Puzzle> {
  const known = isHidden(id) ? undefined : compiled.get(id)
  if (known) return ok(known)
  const definition = definitionById(id)
  if (!definition) return fail('unknown-puzzle', `No puzzle here has the id ${id}.`)
  const puzzle = compiledFrom(definition)
  if (puzzle.ok) compiled.set(id, puzzle.value)
  return puzzle
}
