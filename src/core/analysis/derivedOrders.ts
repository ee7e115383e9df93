/** Orders that were computed beforehand (`npm run derive`), found by what the definition says. */
import type { PuzzleDefinition } from '../puzzle/definition'
import { definitionKey } from './definitionKey'
import orders from './derived/orders.json'
import { learnedTables } from './learnedTables'
import type { writeOrder } from './order'

export type WrittenOrder = ReturnType<typeof writeOrder>

export const derivedOrder = (definition: PuzzleDefinition): WrittenOrder | undefined =>
  (orders as Record<string, WrittenOrder>)[definitionKey(definition)] ??
  (learnedTables(definition).order as WrittenOrder | undefined)
