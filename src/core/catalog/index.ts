/** The shipped puzzles. A new one is a file beside the others and a line here. */
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition, type PuzzleDefinition } from '../puzzle/definition'
import { fail, must, ok, type Result } from '../result'
import cube2 from './boxes/cube-2.json'
import cube3 from './boxes/cube-3.json'

const files: readonly unknown[] = [cube2, cube3]

export const CATALOG: readonly PuzzleDefinition[] = files.map((file) => must(readDefinition(file)))

const compiled = new Map<string, Puzzle>()

/** A shipped puzzle by its id, compiled once. */
export function shippedPuzzle(id: string): Result<Puzzle> {
  const known = compiled.get(id)
  if (known) return ok(known)
  const definition = CATALOG.find((each) => each.id === id)
  if (!definition) return fail('unknown-puzzle', `No shipped puzzle has the id ${id}.`)
  const puzzle = compile(definition)
  compiled.set(id, puzzle)
  return ok(puzzle)
}
