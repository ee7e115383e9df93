/** Why a turn is blocked, in words: places are called as the finished puzzle is held, as the windows show them. */
import { blockClaim } from '../claims/facts'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Block } from '../state'
import { sentencesOf } from './say'

export const blockedWords = (
  puzzle: Puzzle,
  turn: Turn,
  block: Block,
  as: Parameters<typeof sentencesOf>[2] = {},
): string => sentencesOf(puzzle, [blockClaim(puzzle, turn, block)], as).join(' ')
