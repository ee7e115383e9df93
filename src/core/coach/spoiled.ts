/** What a turn has spoiled that only turns in its place: a centre that shows it is no longer in register. */
import { anchoredHolds, anchorsOf } from '../analysis/anchors'
import { who } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply } from '../rotation'
import { looksHome, type State } from '../state'
import { capital, inWords, listed } from '../phrases'

/** More of them are not named one by one. */
const MOST_NAMED = 2

/** The pieces, as indices, that looked right before and do not now. */
export function outOfRegister(puzzle: Puzzle, before: State, after: State): number[] {
  const looksRight = (state: State, piece: number) => {
    const [hold] = anchoredHolds(puzzle, state)
    return hold === undefined || looksHome(puzzle, piece, multiply(INVERSE[hold], state[piece]))
  }
  return anchorsOf(puzzle).filter((p) => looksRight(before, p) && !looksRight(after, p))
}

/** A sentence, or undefined where nothing of the kind is spoiled. */
export function registerWords(
  puzzle: Puzzle,
  scheme: Scheme,
  before: State,
  after: State,
): string | undefined {
  const out = outOfRegister(puzzle, before, after)
  if (out.length === 0) return undefined
  if (out.length > MOST_NAMED)
    return `${capital(inWords(out.length))} centres are out of register now.`
  const names = listed(out.map((p) => who(puzzle, scheme, p)))
  return `${capital(names)} ${out.length === 1 ? 'is' : 'are'} out of register now.`
}
