/**
 * Ways to do what is wished, one after another: first one that is led home piece by piece and taken back, at once;
 * then better ones that are built of parts; and all of the fewest turns, from both ends.
 */
import { frameOf } from '../analysis/frame'
import { layersOf } from '../analysis/layers'
import { anchorsOf } from '../analysis/anchors'
import { lookAlikesOf, lookClassesOf } from '../analysis/lookAlikes'
import { canBlock } from '../analysis/placements'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { handCost, type Hand } from '../notation/handCost'
import { countQuarters, countTurns, rehold, simplify } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE } from '../rotation'
import { inverseOf, looksHome, turnAll, type State } from '../state'
import { isInShape } from '../scramble/scramble'
import { diagnose } from '../stuck/diagnose'
import { isReachedExactly } from '../universal/account'
import { hasMoves } from '../universal/moves'
import { solveUniversally, turnsOfStep } from '../universal/solve'
import { builtWays } from './built'
import { able, find, type Found } from './find'
import { knownShortest } from './knownShortest'
import { followedBy, inHold, undoing } from './moves'
import { refusalOf, refusalWords } from './refusal'
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
  /** Hears of ways of which it is not known whether others have fewer turns: one at once, then better ones. */
  readonly onFirst?: (way: Way) => void
  /** Whether no more built ways are to be looked for; they are not if it is not given. */
  readonly isBuilt?: () => boolean
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
  { position, pieces, driven, isSettled }: Completed,
  { isExact = false, layers, most, hand = 'right', scheme, rest, onNone, onFirst, isBuilt }: Asked,
): Promise<Result<readonly Way[]>> {
  const wanted = { position, pieces, isExact }
  if (does(puzzle, [], wanted))
    return fail('bad-wish', 'Nothing is asked: the finished puzzle is like that already.', {
      field: 'wish',
    })
  let fewest = Infinity
  const tell = (turns: readonly Turn[]) => {
    if (turns.length >= fewest) return
    fewest = turns.length
    onFirst?.(wayOf(turns, hand, false))
  }
  if (hasMoves(puzzle)) {
    const judged = diagnose(puzzle, position)
    const refusal = refusalOf(puzzle, judged)
    // Where pieces are free, that this position cannot be says nothing of all others.
    if (isSettled && refusal !== undefined)
      return fail('impossible', refusalWords(puzzle, scheme, refusal))
    if (isExact && isSettled && driven.length === 0 && !isReachedExactly(puzzle, position))
      return fail(
        'impossible',
        'It can be done as it is seen, but not so that what does not show is right too: counted through, its exchanges or its turns in place do not come out even.',
      )
    const first = judged.state && ledHome(puzzle, judged.state)
    const isAllowed = (turn: Turn) =>
      layers === undefined || layers.includes(puzzle.grips[turn.grip].name)
    if (first?.every(isAllowed) && does(puzzle, first, wanted)) tell(first)
  }
  const known = knownWays(puzzle, wanted, { layers, most })
  if (known.length > 0 && known[0].length <= fewest) {
    const ways = known.map((turns) => wayOf(turns, hand, isTold(puzzle, wanted)))
    ways.sort((a, b) => a.cost - b.cost)
    if (ways[0].isShortest) return ok(ways)
    tell(ways[0].turns)
  }
  const search = (beyond: number) =>
    find(puzzle, {
      position,
      isExact,
      pieces,
      most,
      hand,
      beyond,
      ...(layers ? { layers } : {}),
      ...(rest ? { rest } : {}),
      ...(onNone ? { onNone } : {}),
    })
  const near = await search(1)
  const isOver = async () => (await rest?.()) ?? false
  if (!near.ok || near.value.length > 0) return shortest(near, hand)
  if (isBuilt && !canBlock(puzzle) && !(await isOver()))
    await builtWays(puzzle, wanted, {
      turns: able(puzzle, layers),
      fewerThan: Math.min(fewest, most + 1),
      rest: async () => (await isOver()) || isBuilt(),
      onBetter: tell,
      does: (way) => does(puzzle, way, wanted),
    })
  return (await isOver()) ? ok([]) : shortest(await search(Infinity), hand)
}

/** What was found beforehand with every single layer, if it does what is wished here. */
function knownWays(
  puzzle: Puzzle,
  wanted: Pick<Completed, 'position' | 'pieces'> & Pick<Asked, 'isExact'>,
  { layers, most }: { readonly layers?: readonly string[] | undefined; readonly most: number },
): Turn[][] {
  const single = layersOf(puzzle).map((grip) => puzzle.grips[grip].name)
  // With several layers together fewer turns might do.
  const isAsSearched = (asked: readonly string[]) =>
    single.every((name) => asked.includes(name)) && asked.every((name) => single.includes(name))
  if (layers && !isAsSearched(layers)) return []
  const { position, pieces } = wanted
  if (pieces.filter((p) => !looksHome(puzzle, p, position[p])).length !== 2) return []
  return knownShortest(puzzle, (turns) => turns.length <= most && does(puzzle, turns, wanted))
}

/**
 * Whether what was proven where every piece tells holds here: where some look alike, are turned unseen or may lie as
 * they like, fewer turns may do it. Only what never leaves its place was not asked to tell how it is turned.
 */
function isTold(
  puzzle: Puzzle,
  { pieces, isExact }: { readonly pieces: readonly number[]; readonly isExact: boolean },
): boolean {
  const { classSize, classOf } = lookClassesOf(puzzle)
  const { unseen } = lookAlikesOf(puzzle)
  const still = new Set(anchorsOf(puzzle))
  const tells = (p: number) =>
    classSize[classOf[p]] === 1 && (unseen[p].length === 1 || still.has(p))
  return puzzle.pieces.every(
    ({ faces }, p) => faces.length === 0 || (pieces.includes(p) && (isExact || tells(p))),
  )
}

const shortest = (found: Result<readonly Found[]>, hand: Hand): Result<readonly Way[]> =>
  found.ok ? ok(found.value.map(({ turns }) => wayOf(turns, hand, true))) : found

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
  if (!made.ok || !isInShape(puzzle, made.value)) return false
  // Each piece that matters lies as it was asked, or one that looks like it does.
  const off = followedBy(puzzle, made.value, undoing(puzzle, position))
  return pieces.every((p) => (isExact ? off[p] === IDENTITY : looksHome(puzzle, p, off[p])))
}
