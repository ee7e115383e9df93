/**
 * The fewest turns: no method, but a measure for the others. Derived for every puzzle that is small enough
 * for a table of all its states.
 */
import type { Puzzle } from '../puzzle/compile'
import { tableOf } from '../universal/shortestHome'
import type { School } from './school'

export const SHORTEST_ID = 'shortest'
export const SHORTEST_NAME = 'Shortest'

const schools = new WeakMap<Puzzle, School | null>()

/** Undefined where there are too many states. */
export function shortest(puzzle: Puzzle): School | undefined {
  const known = schools.get(puzzle)
  if (known !== undefined) return known ?? undefined
  const school = tableOf(puzzle) ? schoolOf(puzzle) : undefined
  schools.set(puzzle, school ?? null)
  return school
}

const schoolOf = (puzzle: Puzzle): School => ({
  id: SHORTEST_ID,
  name: SHORTEST_NAME,
  character: 'The least number of turns, for comparison and for the curious.',
  fits: { mechanism: 'any' },
  options: [],
  isWithoutBase: true,
  stages: [
    {
      id: 'solve',
      name: 'Shortest way home',
      aim: 'Every piece is home.',
      base: 'D',
      goal: [{ layer: 'base', must: 'looks home', pieces: puzzle.pieces.map((_, p) => p) }],
      technique: { kind: 'optimal' },
    },
  ],
})
