/**
 * Ways to do what is wished, one after another: first one that is led home piece by piece and taken back, at once;
 * then all of the fewest turns, from both ends.
 */
import { frameOf } from '../analysis/frame'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { handCost, type Hand } from '../notation/handCost'
import { countQuarters, countTurns, rehold, simplify } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE } from '../rotation'
import { inverseOf, looksHome, turnAll, type State } from '../state'
import { diagnose } from '../stuck/diagnose'
import { isReachedExactly } from '../universal/account'
import { hasMoves } from '../universal/moves'
import { solveUniversally, turnsOfStep } from '../universal/solve'
import { find } from './find'
import { followedBy, inHold, undoing } from './moves'
import { refusalOf } from './refusal'
import type { Completed } from './wish'

export interface Way {
  readonly turns: readonly Turn[]
  readonly turnCount: number
  readonly quarterCount: number
  /** In the hand. */
  readonly cost: number
  /** Whether it is proven that none has fewer turns that ends in the same hold. */
  readonly isShortest: boolean
}

export interface Asked {
  /** Whether what does not show must be right too: equal pieces in their places, centres in register. */
  readonly isExact?: boolean
  readonly layers?: readonly string[]
  readonly most: number
  readonly hand?: Hand
  readonly scheme: Scheme
  /** Called every few milliseconds; true ends the search. */
  readonly rest?: () => Promise<boolean>
  /** Hears up to how many turns there is none. */
  readonly onNone?: (turns: number) => void
  /** Hears of a way before the search for the fewest turns begins. */
  readonly onFirst?: (way: Way) => void
}

const wayOf = (turns: readonly Turn[], hand: Hand, isShortest: boolean): Way => ({
  turns,
  turnCount: countTurns(turns),
  quarterCount: countQuarters(turns),
  cost: handCost(turns, hand),
  isShortest,
})

/**
 * @returns ways, those of the fewest turns if the search came to its end; none where there is none up to so many turns.
 *   Fails with the reason where no turns do it.
 */
export async function waysFor(
  puzzle: Puzzle,
  { position, pieces }: Completed,
  { isExact = false, layers, most, hand = 'right', scheme, rest, onNone, onFirst }: Asked,
): Promise<Result<readonly Way[]>> {
  const wanted = { position, pieces, isExact }
  if (does(puzzle, [], wanted))
    return fail('bad-wish', 'Nothing is asked: the finished puzzle is like that already.', {
      field: 'wish',
    })
  if (hasMoves(puzzle)) {
    const judged = diagnose(puzzle, position, scheme)
    const refusal = refusalOf(puzzle, scheme, judged)
    if (refusal !== undefined) return fail('impossible', refusal)
    if (isExact && !isReachedExactly(puzzle, position))
      return fail(
        'impossible',
        'It can be done as it is seen, but not so that what does not show is right too: counted through, its exchanges or its turns in place do not come out even.',
      )
    const first = judged.state && ledHome(puzzle, judged.state)
    const isAllowed = (turn: Turn) =>
      layers === undefined || layers.includes(puzzle.grips[turn.grip].name)
    if (first?.every(isAllowed) && does(puzzle, first, wanted)) onFirst?.(wayOf(first, hand, false))
  }
  const found = await find(puzzle, {
    position,
    isExact,
    pieces,
    most,
    hand,
    ...(layers ? { layers } : {}),
    ...(rest ? { rest } : {}),
    ...(onNone ? { onNone } : {}),
  })
  return found.ok ? ok(found.value.map(({ turns }) => wayOf(turns, hand, true))) : found
}

/**
 * Turns that make a position, by the universal school; undefined where it has no way. That school keeps one piece
 * still, so it is asked in a hold in which that piece has nothing to do with it.
 */
function ledHome(puzzle: Puzzle, position: State): Turn[] | undefined {
  const { piece } = frameOf(puzzle)
  const hold = puzzle.holds.find(
    (each) => piece === undefined || inHold(puzzle, position, each)[piece] === IDENTITY,
  )
  if (hold === undefined) return undefined
  const way = solveUniversally(puzzle, inHold(puzzle, position, hold))
  if (!way.ok) return undefined
  const turns = way.value.steps.flatMap((step) => [...turnsOfStep(puzzle, step)])
  return rehold(puzzle, simplify(puzzle, inverseOf(puzzle, turns)), INVERSE[hold])
}

/** Whether turns can be made from the finished puzzle and do what is wished, as it is seen. */
export function does(
  puzzle: Puzzle,
  turns: readonly Turn[],
  {
    position,
    pieces,
    isExact = false,
  }: Pick<Completed, 'position' | 'pieces'> & Pick<Asked, 'isExact'>,
): boolean {
  const made = turnAll(puzzle, new Uint8Array(position.length), turns)
  if (!made.ok) return false
  // Each piece that matters lies as it was asked, or one that looks like it does.
  const off = followedBy(puzzle, made.value, undoing(puzzle, position))
  return pieces.every((p) => (isExact ? off[p] === IDENTITY : looksHome(puzzle, p, off[p])))
}
