/**
 * A sequence of the kin on a puzzle: what it does here besides, and cleaner ways to what it does there. Wanted is what
 * the kin shows; what the kin does not show, as a centre that is turned, shall stay as it is.
 */
import { kinPieces } from '../analysis/kin'
import { stateMade } from '../analysis/effect'
import { handCost, type Hand } from '../notation/handCost'
import { countTurns, simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { layersOf } from '../analysis/layers'
import { fail, ok, type Result } from '../result'
import { IDENTITY } from '../rotation'
import { shortestFor } from '../search/twoEnded'
import { inverseOf, looksHome, start, type State } from '../state'
import { followedBy, undoing } from './moves'
import { does } from './ways'

export interface Adapting {
  /** What is done here, and what is wanted. */
  readonly made: State
  readonly wanted: State
  /** Pieces that are disturbed here and not there, seen or not. */
  readonly besides: readonly number[]
}

/** Fails where a turn is blocked here, or no layer of its name is there. */
export function adaptingOf(puzzle: Puzzle, kin: Puzzle, turns: readonly Turn[]): Result<Adapting> {
  const here: Turn[] = []
  for (const { name } of turns) {
    const turn = puzzle.turnByName.get(name)
    if (!turn) return fail('no-layer', `${name} turns no layer of this puzzle.`)
    here.push(turn)
  }
  const there = stateMade(kin, turns)
  if (!there.ok) return there
  const made = stateMade(puzzle, here)
  if (!made.ok) return made
  const links = kinPieces(puzzle, kin)
  const wanted = start(puzzle)
  links.forEach((k, p) => {
    if (k === undefined) return
    const r = there.value[k]
    const isSeen = kin.place[24 * k + r] !== k || kin.look[24 * k + r] !== kin.look[24 * k]
    if (isSeen) wanted[p] = r
  })
  const left = followedBy(puzzle, made.value, undoing(puzzle, wanted))
  return ok({
    made: made.value,
    wanted,
    besides: [...left].flatMap((r, p) => (r === IDENTITY ? [] : [p])),
  })
}

export type Adaption =
  | { readonly how: 'as it is' }
  | { readonly how: 'repeated'; readonly times: number }
  | { readonly how: 'turns before' | 'turns after'; readonly turns: readonly Turn[] }
  | { readonly how: 'set up'; readonly turns: readonly Turn[] }

export interface Cleaner {
  readonly adaption: Adaption
  /** All of it, turns of one layer joined. */
  readonly turns: readonly Turn[]
  readonly turnCount: number
  readonly cost: number
}

/** Repeats that are tried, turns that are put before or after, and turns of a setup. */
const MOST = { repeats: 24, added: 6, setup: 2 }
/** Positions that are kept for turns before or after, on each side. */
const KEPT = 60_000

/** Ways to what is wanted that begin with the sequence as it is, the fewest turns first; each is tried on the engine. */
export async function cleaned(
  puzzle: Puzzle,
  turns: readonly Turn[],
  { made, wanted }: Adapting,
  hand: Hand = 'right',
  rest?: () => Promise<boolean>,
): Promise<Cleaner[]> {
  const pieces = puzzle.pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : []))
  const found: Cleaner[] = []
  const tell = (adaption: Adaption, all: readonly Turn[]) => {
    const joined = simplify(puzzle, all)
    if (!does(puzzle, joined, { position: wanted, pieces })) return
    found.push({
      adaption,
      turns: joined,
      turnCount: countTurns(joined),
      cost: handCost(joined, hand),
    })
  }
  tell({ how: 'as it is' }, turns)
  if (found.length > 0) return found
  for (let times = 2; times <= MOST.repeats && found.length === 0; times++)
    tell({ how: 'repeated', times }, Array.from({ length: times }, () => turns).flat())
  const single = layersOf(puzzle).map((grip) => puzzle.grips[grip].name)
  const able = puzzle.turns.filter(({ grip }) => single.includes(puzzle.grips[grip].name))
  const search = async (state: State): Promise<Turn[] | undefined> => {
    const [way] = await shortestFor(puzzle, {
      pieces,
      state,
      turns: able,
      most: MOST.added,
      ways: 1,
      kept: KEPT,
      ...(rest ? { rest } : {}),
    })
    return way
  }
  // What leads the rest home, done after; and what has to be there before, taken back.
  const after = await search(followedBy(puzzle, undoing(puzzle, wanted), made))
  if (after) tell({ how: 'turns after', turns: after }, [...turns, ...after])
  const before = await search(followedBy(puzzle, made, undoing(puzzle, wanted)))
  if (before) tell({ how: 'turns before', turns: before }, [...before, ...turns])
  for (const setup of setups(able, MOST.setup))
    tell({ how: 'set up', turns: setup }, [...setup, ...turns, ...inverseOf(puzzle, setup)])
  return found.sort((a, b) => a.turnCount - b.turnCount || a.cost - b.cost).slice(0, 8)
}

function setups(turns: readonly Turn[], most: number): Turn[][] {
  const one = turns.map((turn) => [turn])
  if (most === 1) return one
  const two = turns.flatMap((a) => turns.flatMap((b) => (a.grip === b.grip ? [] : [[a, b]])))
  return [...one, ...two]
}

/** Whether it disturbs nothing here that is seen besides what it does on the kin. */
export const isClean = (puzzle: Puzzle, { made, wanted }: Adapting): boolean => {
  const left = followedBy(puzzle, made, undoing(puzzle, wanted))
  return left.every((r, p) => looksHome(puzzle, p, r))
}
