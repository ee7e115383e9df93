/**
 * What a solver may do without leaving the finished shape, as sequences with their effect: single turns;
 * and, where the shape changes on the way, loops that leave it and come back. A loop is found by turning
 * the core at random and bringing the shape back; those are kept that let pieces go, or lie, or add up
 * as no move before them did, until all is reached that the loops of the puzzle allow.
 */
import { definitionKey } from '../analysis/derivedOrders'
import { frameOf } from '../analysis/frame'
import { orbitsUnder } from '../analysis/orbits'
import { canBlock } from '../analysis/placements'
import { coreOf, loopsOf } from '../analysis/shapes'
import { sumsUnder } from '../analysis/sums'
import { readTurns } from '../notation/read'
import { simplify } from '../notation/rewrite'
import { writeTurns } from '../notation/write'
import type { Puzzle, Turn } from '../puzzle/compile'
import { seededRandom } from '../random'
import { must } from '../result'
import { isInShape } from '../scramble/scramble'
import { blockOf, start, turnAll, turnFreely } from '../state'
import derived from './derived/loops.json'
import { inverseEffect, type Effect } from './effects'
import { canReshape, reshape } from './reshape'

export interface Move {
  readonly turns: readonly Turn[]
  readonly effect: Effect
  readonly inverse: Effect
}

const known = new WeakMap<Puzzle, readonly Move[]>()

/** Whether the moves of a puzzle are known or can be found. */
export const hasMoves = (puzzle: Puzzle): boolean =>
  !canBlock(puzzle) || shippedLoops(puzzle) !== undefined || canReshape(puzzle)

export function movesOf(puzzle: Puzzle): readonly Move[] {
  const found = known.get(puzzle)
  if (found) return found
  const single = singleMoves(puzzle)
  const loops = canBlock(puzzle) ? (shippedLoops(puzzle) ?? searchLoops(puzzle)) : []
  const moves = [...single, ...loops]
  known.set(puzzle, moves)
  return moves
}

/** Turns of the frame that are free in the finished shape and keep it. */
function singleMoves(puzzle: Puzzle): Move[] {
  const home = start(puzzle)
  return frameOf(puzzle).turns.flatMap((turn): Move[] => {
    if (blockOf(puzzle, home, turn)) return []
    const effect = turnFreely(puzzle, home, turn, new Uint8Array(home.length))
    return isInShape(puzzle, effect) ? [moveWith(puzzle, [turn], effect)] : []
  })
}

const moveWith = (puzzle: Puzzle, turns: readonly Turn[], effect: Effect): Move => ({
  turns,
  effect,
  inverse: inverseEffect(puzzle, effect),
})

/** As they are shipped: by the turns of each loop. */
export const writeLoops = (puzzle: Puzzle): string[] =>
  searchLoops(puzzle).map(({ turns }) => writeTurns(turns))

/** Shipped loops are made on the engine before they are used. */
function shippedLoops(puzzle: Puzzle): Move[] | undefined {
  const written = (derived as Record<string, string[]>)[definitionKey(puzzle.definition)]
  return written?.map((text) => {
    const turns = must(readTurns(puzzle, text))
    const effect = must(turnAll(puzzle, start(puzzle), turns))
    if (!isInShape(puzzle, effect)) throw new Error(`${text} does not keep the shape`)
    return moveWith(puzzle, turns, effect)
  })
}

/** Random loops that are tried, and the most turns out of shape at the end of the search. */
const TRIES = 600
const MOST_OUT = 16

function searchLoops(puzzle: Puzzle): Move[] {
  const core = coreOf(puzzle)
  if (!core) return []
  const wanted = measure(puzzle, loopsOf(puzzle, core))
  const moves = singleMoves(puzzle)
  const loops: Move[] = []
  const random = seededRandom(1)
  const free = frameOf(puzzle).turns.filter(({ grip }) => !puzzle.grips[grip].condition)
  let reached = measure(
    puzzle,
    moves.map(({ effect }) => effect),
  )
  // Short ways out first: their loops are short too.
  for (let tried = 0; tried < TRIES && reached !== wanted; tried++) {
    const out = Array.from(
      { length: 1 + Math.floor((MOST_OUT * tried) / TRIES) + random.below(2) },
      () => free[random.below(free.length)],
    )
    const away = must(turnAll(puzzle, start(puzzle), out))
    const back = isInShape(puzzle, away) ? [] : reshape(puzzle, away)
    if (!back) continue
    const turns = simplify(puzzle, [...out, ...back])
    const effect = must(turnAll(puzzle, start(puzzle), turns))
    const now = measure(puzzle, [...moves, ...loops].map((move) => move.effect).concat([effect]))
    if (now === reached) continue
    reached = now
    loops.push(moveWith(puzzle, turns, effect))
  }
  return loops
}

/** Orbits, orientations and sums that effects reach, as text: equal texts reach the same. */
function measure(puzzle: Puzzle, effects: readonly Effect[]): string {
  const orbits = orbitsUnder(puzzle, effects, frameOf(puzzle).piece)
  const { size } = sumsUnder(puzzle, orbits, effects).span
  const told = orbits.map(
    ({ places, orientations }) =>
      `${[...places].sort((a, b) => a - b).join('.')}x${orientations.length}`,
  )
  return `${told.sort().join(' ')} ${size}`
}
