/** What happens while a block grows in a cap, turn by turn, read off the states. */
import { turnSide } from '../analysis/sides'
import { average, dot } from '../geometry/vector'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import { rotate, type Rotation } from '../rotation'
import { turnFreely, type State } from '../state'

export interface BlockStory {
  /** The turn by which what comes lies together, where it does not from the beginning. */
  readonly gathers?: number
  /** The last turn of the cap before the lift that moves the block, and what the lift would have done to it before. */
  readonly parks?: { readonly at: number; readonly from: 'apart' | 'along' | 'clear' }
  /** The turn that brings the last of what comes beside the block. */
  readonly lifts: number
  /** What of the block it moves: nothing as a rule; all of it where that was out of the cap. */
  readonly moves: 'nothing' | 'some' | 'all'
  /** How many pieces leave the cap by it. */
  readonly leaving: number
}

/**
 * @param side of the cap, when all is finished
 * @param block pieces that are home already; may be none
 * @param coming pieces that come home beside them
 * @param turns of layers, from the position `from`
 * @returns undefined where the last turn does not leave them together
 */
export function blockStory(
  puzzle: Puzzle,
  side: Direction,
  block: readonly number[],
  coming: readonly number[],
  from: { readonly state: State; readonly frame: Rotation },
  turns: readonly Turn[],
): BlockStory | undefined {
  const states: State[] = [from.state]
  for (const turn of turns)
    states.push(turnFreely(puzzle, states[states.length - 1], turn, new Uint8Array(from.state)))
  const { vector } = turnSide(puzzle, from.frame, side)
  const inCap = (state: State, p: number) =>
    dot(rotate(state[p], average(puzzle.pieces[p].cells)), vector) > 1.5
  const all = [...block, ...coming]
  const isOne = (state: State, pieces: readonly number[]) =>
    pieces.every((p) => state[p] === state[pieces[0]])
  const apart = states.findLastIndex(
    (state) => !isOne(state, all) || !coming.every((p) => inCap(state, p)),
  )
  if (apart < 0 || apart === turns.length) return undefined
  const scattered = states.findLastIndex((state) => !isOne(state, coming))
  const isOwn = (turn: Turn) => {
    const { axis, from: inner, to } = puzzle.grips[turn.grip]
    return !turn.whole && to === null && (inner ?? 0) > 1 && dot(axis, vector) === 1
  }
  const movedBy = (turn: Turn, state: State): number => {
    const next = turnFreely(puzzle, state, turn, new Uint8Array(state))
    return block.filter((p) => next[p] !== state[p]).length
  }
  const ofBlock = <T>(count: number, none: T, some: T, whole: T): T =>
    count === 0 ? none : count < block.length ? some : whole
  const parks = turns
    .slice(0, apart)
    .findLastIndex((turn, i) => isOwn(turn) && movedBy(turn, states[i]) > 0)
  const lift = turns[apart]
  return {
    ...(coming.length > 1 && scattered >= 0 && scattered < apart ? { gathers: scattered } : {}),
    ...(parks < 0
      ? {}
      : {
          parks: {
            at: parks,
            from: ofBlock(movedBy(lift, states[parks]), 'clear', 'apart', 'along'),
          },
        }),
    lifts: apart,
    moves: ofBlock(movedBy(lift, states[apart]), 'nothing', 'some', 'all'),
    leaving: puzzle.pieces.filter((_, p) => inCap(states[apart], p) && !inCap(states[apart + 1], p))
      .length,
  }
}
