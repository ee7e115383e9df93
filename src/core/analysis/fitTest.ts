/** Whether a piece would fit where some turns bring it, before they are made. */
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { ok, type Result } from '../result'
import { INVERSE, multiply } from '../rotation'
import { turnAll, type State } from '../state'
import { fitOf, type Fit } from './fit'
import { holdOf } from './placements'
import { whereNow, who } from './who'

export interface FitTest {
  readonly fit: Fit
  /** What the puzzle looks like then. */
  readonly state: State
  readonly sentence: string
}

/** A problem where some turn is blocked. */
export function fitAfter(
  puzzle: Puzzle,
  scheme: Scheme,
  from: State,
  turns: readonly Turn[],
  piece: number,
): Result<FitTest> {
  const end = turnAll(puzzle, from, turns)
  if (!end.ok) return end
  const state = end.value
  const frame = holdOf(puzzle, state) ?? 0
  const fit = fitOf(puzzle, piece, multiply(INVERSE[frame], state[piece]))
  const place = whereNow(puzzle, frame, piece, state[piece])
  const there = place === undefined ? 'outside the finished shape' : `in the place ${place}`
  return ok({
    fit,
    state,
    sentence: `Then ${who(puzzle, scheme, piece)} lies ${there}${WORDS[fit]}`,
  })
}

const WORDS: Readonly<Record<Fit, string>> = {
  home: ', and fits: its shape, and its colours as the finished puzzle shows them.',
  shape: '. Its shape fits, its colours do not.',
  out: '. It does not fit: its shape is another, or it stands the wrong way.',
}
