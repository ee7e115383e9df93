/** Why a turn is blocked, in words: places are called as the finished puzzle is held, as the windows show them. */
import { blockClaim } from '../claims/facts'
import type { Puzzle, Turn } from '../puzzle/compile'
import { blockOf, type State } from '../state'
import { sentencesOf } from './say'

/** Undefined where it is free. */
export function whyBlocked(
  puzzle: Puzzle,
  state: State,
  turn: Turn,
  as: Parameters<typeof sentencesOf>[2] = {},
): string | undefined {
  const block = blockOf(puzzle, state, turn)
  return block && sentencesOf(puzzle, [blockClaim(puzzle, turn, block)], as).join(' ')
}
