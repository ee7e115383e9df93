/**
 * Searches for a person: all sequences up to a number of turns that meet a goal, pruned by lower
 * bounds, the cheapest in the hand kept.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { turnFreely, type State } from '../state'
import { CHEAPEST_TURN, handCost, turnCost } from '../notation/handCost'

export interface AlgorithmSearch {
  readonly puzzle: Puzzle
  readonly turns: readonly Turn[]
  /** A number of turns that the goal is at least away; 0 is always right. */
  readonly lowerBound: (state: State) => number
  readonly meets: (state: State) => boolean
  readonly maxTurns: number
  /** Turns beyond the shortest that may be spent to lie better in the hand. */
  readonly slack: number
  /** Only sequences that cost less in the hand are wanted. */
  readonly costBelow?: number
}

/** The cheapest sequence found, or undefined if none exists within `maxTurns`. */
export function findAlgorithm(search: AlgorithmSearch, from: State): Turn[] | undefined {
  const { puzzle, turns, lowerBound, meets, maxTurns, slack, costBelow = Infinity } = search
  const states = Array.from({ length: maxTurns + 1 }, () => new Uint8Array(from.length))
  states[0].set(from)
  const path: Turn[] = []
  let best: Turn[] | undefined
  let bestCost = costBelow

  const visit = (depth: number, limit: number, cost: number) => {
    const state = states[depth]
    if (depth === limit) {
      if (!meets(state)) return
      const total = handCost(path)
      if (total < bestCost) {
        bestCost = total
        best = [...path]
      }
      return
    }
    const previous = path.at(-1)
    for (const turn of turns) {
      if (previous && !mayFollow(puzzle, previous, turn)) continue
      const spent = cost + turnCost(turn)
      if (spent + (limit - depth - 1) * CHEAPEST_TURN >= bestCost) continue
      turnFreely(puzzle, state, turn, states[depth + 1])
      if (depth + 1 + lowerBound(states[depth + 1]) > limit) continue
      path.push(turn)
      visit(depth + 1, limit, spent)
      path.pop()
    }
  }

  let last = maxTurns
  for (let limit = 0; limit <= last; limit++) {
    if (lowerBound(from) > limit || limit * CHEAPEST_TURN >= bestCost) continue
    const before = best
    visit(0, limit, 0)
    if (!before && best) last = Math.min(maxTurns, limit + slack)
  }
  return best
}

/** Turns of one layer are joined, and parallel layers are turned in one order only. */
function mayFollow(puzzle: Puzzle, previous: Turn, next: Turn): boolean {
  if (previous.grip === next.grip) return false
  const [a, b] = [puzzle.grips[previous.grip].axis, puzzle.grips[next.grip].axis]
  const parallel = a.every((c, i) => c === b[i]) || a.every((c, i) => c === -b[i])
  return !parallel || previous.grip < next.grip
}
