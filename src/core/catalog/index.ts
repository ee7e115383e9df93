/** The shipped puzzles. A new one is a file beside the others and a line here. */
import { compile, type Puzzle } from '../puzzle/compile'
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

/** A shipped definition by its id, with a setting or without; checked at its first use. */
export function shippedDefinition(id: string): PuzzleDefinition | undefined {
  const known = definitions.get(id)
  if (known) return known
  const { file: fileId, setting } = splitId(id)
  const file = files.find((each) => each.id === fileId)
  if (!file) return undefined
  const plain = must(readDefinition(file))
  const definition = setting === undefined ? plain : withSetting(plain, setting)
  if (definition) definitions.set(id, definition)
  return definition
}

export const CATALOG_IDS: readonly string[] = files.map(({ id }) => id)

/** Ids and names, for lists that need no more. */
export const CATALOG_NAMES = files.map(({ id, name }) => ({ id, name }))

export const catalog = (): PuzzleDefinition[] =>
  CATALOG_IDS.map((id) => shippedDefinition(id) as PuzzleDefinition)

const compiled = new Map<string, Puzzle>()

/** A shipped puzzle by its id, compiled once. */
export function shippedPuzzle(id: string): Result<Puzzle> {
  const known = compiled.get(id)
  if (known) return ok(known)
  const definition = shippedDefinition(id)
  if (!definition) return fail('unknown-puzzle', `No shipped puzzle has the id ${id}.`)
  const puzzle = compile(definition)
  compiled.set(id, puzzle)
  return ok(puzzle)
}
