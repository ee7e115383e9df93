/**
 * The fewest turns: no method, but a measure for the others. Derived for every puzzle that is small enough
 * for a table of all its states.
 */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { canBlock } from '../analysis/placements'
import { orbitsWithoutTips } from '../analysis/tips'
import type { Puzzle } from '../puzzle/compile'
import { coordinatesOf } from '../search/coordinates'
import { NAMINGS_LIMIT, STATE_LIMIT } from '../search/distanceTable'
import type { School } from './school'

export const SHORTEST_ID = 'shortest'
export const SHORTEST_NAME = 'Shortest'

const schools = new WeakMap<Puzzle, School | null>()

/** Undefined where there are too many states, or where turns can be blocked. */
export function shortest(puzzle: Puzzle): School | undefined {
  const known = schools.get(puzzle)
  if (known !== undefined) return known ?? undefined
  const school = isSmall(puzzle) ? schoolOf(puzzle) : undefined
  schools.set(puzzle, school ?? null)
  return school
}

/** Arrangements, or orientations, of one orbit that are listed to see how many turns really reach. */
const LISTED = 50_000

/** In how many ways look-alikes can be told apart, at most. */
function namingsOf(puzzle: Puzzle): number {
  const { classes, unseen } = lookAlikesOf(puzzle)
  const trades = classes.flatMap((alike) => alike.map((_, i) => i + 1))
  const spins = unseen.map((rotations) => Math.max(1, rotations.length))
  return [...trades, ...spins].reduce((product, ways) => product * ways, 1)
}

/** Whether all arrangements and orientations together, tips left out, can be listed. */
function isSmall(puzzle: Puzzle): boolean {
  if (canBlock(puzzle) || namingsOf(puzzle) > NAMINGS_LIMIT) return false
  const sizes = orbitsWithoutTips(puzzle).map(({ places, orientations }) => ({
    arrangements: places.reduce((product, _, i) => product * (i + 1), 1),
    orientations: orientations.length ** places.length,
  }))
  const all = sizes.reduce((product, each) => product * each.arrangements * each.orientations, 1)
  if (all <= STATE_LIMIT) return true
  // Half turns reach fewer of them than there are.
  const isListed = sizes.every((each) => each.arrangements <= LISTED && each.orientations <= LISTED)
  return isListed && coordinatesOf(puzzle).size <= STATE_LIMIT
}

const schoolOf = (puzzle: Puzzle): School => ({
  id: SHORTEST_ID,
  name: SHORTEST_NAME,
  character: 'The least number of turns, for comparison and for the curious.',
  puzzles: [puzzle.definition.id],
  options: [],
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
