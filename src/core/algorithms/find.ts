/**
 * Sequences that do what is asked, from both ends: the fewest turns first, of equal ones the easiest in the hand. What
 * is asked is a position, as the finished puzzle shall look afterwards; pieces that are not asked about may do as they
 * like. Sums tell first whether there can be any.
 */
import { layersOf } from '../analysis/layers'
import { handCost, type Hand } from '../notation/handCost'
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { shortestFor } from '../search/twoEnded'
import { inverseOf, type State } from '../state'
import { isReached } from '../universal/account'

export interface Wanted {
  /** The finished puzzle afterwards: in shape, whole-puzzle turns taken back. */
  readonly position: State
  /** Whether what does not show must be right too. */
  readonly isExact?: boolean
  /** Pieces that shall lie so; all if not given. */
  readonly pieces?: readonly number[]
  /** Layers that may turn, by name; all single ones if not given. */
  readonly layers?: readonly string[]
  /** Turns of a sequence at most. */
  readonly most: number
  readonly hand?: Hand
  /** Turns that it goes on beyond the positions that are kept; for as long as it is let, if not given. */
  readonly beyond?: number
  /** Called every few milliseconds; true ends the search with what is found so far. */
  readonly rest?: () => Promise<boolean>
  /** Hears up to how many turns there is none, whenever it is sure of more. */
  readonly onNone?: (turns: number) => void
}

/** Positions that are kept on each side: at most some 200 MB each. Beyond them it goes turn by turn, nothing kept. */
const KEPT = 1_500_000

/** Sequences that are given. */
const WAYS = 40

/** A wish for more turns is refused. */
export const MOST_TURNS = 24

export interface Found {
  readonly turns: readonly Turn[]
  /** In the hand. */
  readonly cost: number
}

/** Turns of some layers by name, of all single ones if none are given. */
export function able(puzzle: Puzzle, layers?: readonly string[]): Turn[] {
  const names = layers ?? layersOf(puzzle).map((grip) => puzzle.grips[grip].name)
  return puzzle.turns.filter(({ grip }) => names.includes(puzzle.grips[grip].name))
}

/**
 * @returns what was found: all of the fewest turns, which is proven; none where there is none up to so many turns, or
 *   where time or memory ran out first
 */
export async function find(
  puzzle: Puzzle,
  {
    position,
    isExact = false,
    pieces,
    layers,
    most,
    hand = 'right',
    beyond = Infinity,
    rest,
    onNone,
  }: Wanted,
): Promise<Result<readonly Found[]>> {
  if (most > MOST_TURNS)
    return fail('bad-wish', `most is ${most}, but a search goes to ${MOST_TURNS} turns.`, {
      field: 'most',
    })
  const unknown = layers?.find((name) => puzzle.grips.every((grip) => grip.name !== name))
  if (unknown !== undefined)
    return fail('bad-wish', `layers names '${unknown}', which is no layer of this puzzle.`, {
      field: 'layers',
    })
  if (pieces === undefined && !isReached(puzzle, position))
    return fail(
      'impossible',
      'No turns do that: counted through, its exchanges or its turns in place do not come out even.',
    )
  const ways = await shortestFor(puzzle, {
    pieces: pieces ?? puzzle.pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : [])),
    state: position,
    isExact,
    turns: able(puzzle, layers),
    most,
    ways: WAYS,
    kept: KEPT,
    beyond,
    ...(rest ? { rest } : {}),
    ...(onNone ? { onNone } : {}),
  })
  // What leads from the position home leads back from the finished puzzle to it.
  const found = ways.map((way) => {
    const made = inverseOf(puzzle, way)
    return { turns: made, cost: handCost(made, hand) }
  })
  return ok(found.sort((a, b) => a.cost - b.cost))
}
