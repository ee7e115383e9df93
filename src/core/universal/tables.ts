/** What takes a search to find of a puzzle, all at once: shipped for the catalogue, made elsewhere for other puzzles. */
import type { DerivedTables } from '../analysis/learnedTables'
import { orderOfPuzzle, writeOrder } from '../analysis/order'
import { canBlock } from '../analysis/placements'
import type { Puzzle } from '../puzzle/compile'
import { searchCycles, writeCycles } from './baseCycles'
import { hasMoves, writeLoops } from './moves'
import { searchPlan } from './orbitPlan'
import { canReshape } from './reshape'

/** Raised when what is written means something else: what was made before is then made anew. */
export const TABLES_EDITION = 1

/**
 * The order of its group, loops where it changes shape, three-cycles and the order of the work where it has moves.
 *
 * @param tell hears what is done, and how much of all
 */
export function deriveTables(
  puzzle: Puzzle,
  tell: (what: string, share: number) => void = () => undefined,
): DerivedTables {
  const order = writeOrder(orderOfPuzzle(puzzle))
  tell('order', 0.3)
  const loops = canBlock(puzzle) && canReshape(puzzle) ? writeLoops(puzzle) : undefined
  tell('loops', 0.5)
  if (!hasMoves(puzzle)) return { order, ...(loops ? { loops } : {}) }
  const found = searchCycles(puzzle)
  tell('base cycles', 0.8)
  const plan = searchPlan(puzzle, found)?.plan
  tell('order of the work', 1)
  return {
    order,
    cycles: writeCycles(found),
    ...(loops ? { loops } : {}),
    ...(plan ? { plan } : {}),
  }
}
