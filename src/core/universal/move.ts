/** A sequence that begins and ends in the finished shape, with its effect; first of all the single turns. */
import { frameOf } from '../analysis/frame'
import type { Puzzle, Turn } from '../puzzle/compile'
import { isInShape } from '../scramble/scramble'
import { blockOf, start, turnFreely } from '../state'
import { inverseEffect, type Effect } from './effects'

export interface Move {
  readonly turns: readonly Turn[]
  readonly effect: Effect
  readonly inverse: Effect
}

/** Turns of the frame that are free in the finished shape and keep it. */
export function singleMoves(puzzle: Puzzle): Move[] {
  const home = start(puzzle)
  return frameOf(puzzle).turns.flatMap((turn): Move[] => {
    if (blockOf(puzzle, home, turn)) return []
    const effect = turnFreely(puzzle, home, turn, new Uint8Array(home.length))
    return isInShape(puzzle, effect) ? [moveWith(puzzle, [turn], effect)] : []
  })
}

export const moveWith = (puzzle: Puzzle, turns: readonly Turn[], effect: Effect): Move => ({
  turns,
  effect,
  inverse: inverseEffect(puzzle, effect),
})
