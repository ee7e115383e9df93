/** What is derived of puzzles beforehand elsewhere, for those that are not shipped: found by what a definition says. */
import type { PuzzleDefinition } from '../puzzle/definition'
import { definitionKey } from './definitionKey'

/** Each as `npm run derive` writes it. */
export interface DerivedTables {
  readonly order?: unknown
  readonly cycles?: Readonly<Record<string, readonly string[]>>
  readonly loops?: readonly string[]
  readonly plan?: unknown
}

const learned = new Map<string, DerivedTables>()

/** Of the puzzle with that definition, from now on. */
export function learnTables(definition: PuzzleDefinition, tables: DerivedTables): void {
  learned.set(definitionKey(definition), tables)
}

export const learnedTables = (definition: PuzzleDefinition): DerivedTables =>
  learned.get(definitionKey(definition)) ?? {}
