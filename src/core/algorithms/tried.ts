/** What a sequence would do to a position, before any turn is made: what looks home then, which stages are met. */
import { holdOf } from '../analysis/placements'
import type { Puzzle, Turn } from '../puzzle/compile'
import { ok, type Result } from '../result'
import { INVERSE, multiply } from '../rotation'
import { looksHome, turnAll, type State } from '../state'
import { inWords } from '../phrases'

export interface Tried {
  readonly state: State
  readonly sentence: string
}

/** Pieces that look as they do in the finished puzzle held like this. */
export function homeCount(puzzle: Puzzle, state: State): number {
  const back = INVERSE[holdOf(puzzle, state) ?? 0]
  return puzzle.pieces.filter(
    ({ faces }, p) => faces.length > 0 && looksHome(puzzle, p, multiply(back, state[p])),
  ).length
}

/**
 * A problem where some turn is blocked.
 *
 * @param stages the stages of a school by name, and how many of them a state meets, where one is followed
 */
export function tryOut(
  puzzle: Puzzle,
  state: State,
  turns: readonly Turn[],
  stages?: { readonly names: readonly string[]; readonly met: (state: State) => number },
): Result<Tried> {
  const end = turnAll(puzzle, state, turns)
  if (!end.ok) return end
  const shown = puzzle.pieces.filter(({ faces }) => faces.length > 0).length
  const [now, then] = [homeCount(puzzle, state), homeCount(puzzle, end.value)]
  const counted = `Then ${inWords(then)} of the ${inWords(shown)} pieces look home; now ${now === 1 ? 'one does' : `${inWords(now)} do`}.`
  return ok({
    state: end.value,
    sentence: [counted, ...(stages ? stageWords(stages, state, end.value) : [])].join(' '),
  })
}

function stageWords(
  { names, met }: { readonly names: readonly string[]; readonly met: (state: State) => number },
  before: State,
  after: State,
): string[] {
  const [was, is] = [met(before), met(after)]
  if (was === is) return ['No lantern is lit or put out by it.']
  const between = names.slice(Math.min(was, is), Math.max(was, is))
  const which =
    between.length === 1 ? `The lantern ${between[0]}` : `The lanterns ${between.join(', ')}`
  return [`${which} would be ${is > was ? 'lit' : 'put out'}.`]
}
