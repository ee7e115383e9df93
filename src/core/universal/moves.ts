/**
 * What a solver may do without leaving the finished shape, as sequences with their effect: single turns;
 * and, where the shape changes on the way or blocks are glued, loops that leave it and come back.
 */
import { definitionKey } from '../analysis/definitionKey'
import { learnedTables } from '../analysis/learnedTables'
import { layoutsOf } from '../analysis/layouts'
import { canBlock } from '../analysis/placements'
import { readTurns } from '../notation/read'
import { writeTurns } from '../notation/write'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { isInShape } from '../scramble/scramble'
import { start, turnAll } from '../state'
import derived from './derived/loops.json'
import { areAllOfCapped, searchLoops, type Loops } from './loops'
import { moveWith, singleMoves, type Move } from './move'
import { canReshape } from './reshape'

export type { Move } from './move'

const known = new WeakMap<Puzzle, Loops>()
const proven = new WeakMap<Puzzle, boolean>()

/** Whether the moves of a puzzle are known or can be found. */
export const hasMoves = (puzzle: Puzzle): boolean =>
  !canBlock(puzzle) ||
  shippedLoops(puzzle) !== undefined ||
  canReshape(puzzle) ||
  layoutsOf(puzzle) !== undefined

export const movesOf = (puzzle: Puzzle): readonly Move[] => allMoves(puzzle).list

/**
 * Whether it is proven that its moves make everything that turns make in shape, so that what they do not
 * reach is impossible.
 */
export function areMovesAll(puzzle: Puzzle): boolean {
  const found = proven.get(puzzle)
  if (found !== undefined) return found
  const isAll = allMoves(puzzle).isAll()
  proven.set(puzzle, isAll)
  return isAll
}

function allMoves(puzzle: Puzzle): Loops {
  const found = known.get(puzzle)
  if (found) return found
  const shipped = shippedLoops(puzzle)
  const single = singleMoves(puzzle)
  const loops = !canBlock(puzzle)
    ? { list: [], isAll: () => true }
    : shipped
      ? { list: shipped, isAll: () => areAllOfCapped(puzzle, [...single, ...shipped]) }
      : searchLoops(puzzle)
  const moves = { ...loops, list: [...single, ...loops.list] }
  known.set(puzzle, moves)
  return moves
}

/** As they are shipped: by the turns of each loop. */
export const writeLoops = (puzzle: Puzzle): string[] =>
  searchLoops(puzzle).list.map(({ turns }) => writeTurns(turns))

/** Shipped loops are made on the engine before they are used. */
function shippedLoops(puzzle: Puzzle): Move[] | undefined {
  const written =
    (derived as Record<string, string[]>)[definitionKey(puzzle.definition)] ??
    learnedTables(puzzle.definition).loops
  return written?.map((text) => {
    const turns = must(readTurns(puzzle, text))
    const effect = must(turnAll(puzzle, start(puzzle), turns))
    if (!isInShape(puzzle, effect)) throw new Error(`${text} does not keep the shape`)
    return moveWith(puzzle, turns, effect)
  })
}
