/**
 * Honest scrambles. A puzzle whose states can all be numbered gets a uniformly drawn state and turns
 * that lead to it; any other gets random turns.
 */
import { coordinatesOf } from '../search/coordinates'
import { frameOf } from '../analysis/frame'
import { orbitsOf } from '../analysis/orbits'
import type { Puzzle, Turn } from '../puzzle/compile'
import { seededRandom, type Random } from '../random'
import {
  halfTurnTable,
  shortestSequences,
  UNREACHED,
  type DistanceTable,
} from '../search/distanceTable'
import { blockedBy, inverseOf, start, turnFreely, type State } from '../state'

export interface Scramble {
  readonly seed: number
  readonly turns: readonly Turn[]
  /** The turns cut into parts with a purpose of their own; one part here. */
  readonly phases: readonly (readonly Turn[])[]
}

/** Shortest scramble that is given out for a drawn state, in turns. */
export const LEAST_TURNS = 9

/** Turns of a random-turn scramble, for each layer that can be turned. */
const TURNS_A_LAYER = 5

/** Whether scrambles of this puzzle are uniformly drawn states. */
export const isDrawnUniformly = (puzzle: Puzzle): boolean => orbitsOf(puzzle).length === 1

export function scramble(puzzle: Puzzle, seed: number, leastTurns = LEAST_TURNS): Scramble {
  const random = seededRandom(seed)
  const turns = isDrawnUniformly(puzzle)
    ? turnsToDrawn(puzzle, random, leastTurns)
    : randomTurns(puzzle, random, leastTurns)
  return { seed, turns, phases: [turns] }
}

/** A state drawn uniformly among all that turns reach, frame piece home. */
export function drawState(puzzle: Puzzle, random: Random): State {
  const { size, stateAt } = coordinatesOf(puzzle)
  const { distances } = halfTurnTable(puzzle)
  for (;;) {
    const index = random.below(size)
    if (distances[index] !== UNREACHED) return stateAt(index)
  }
}

/** Turns that lead to a uniformly drawn state, never fewer than asked. */
function turnsToDrawn(puzzle: Puzzle, random: Random, leastTurns: number): Turn[] {
  const state = drawState(puzzle, random)
  const table = halfTurnTable(puzzle)
  const ways = shortestSequences(table, state, 20)
  const home = ways[random.below(ways.length)]
  if (home.length >= leastTurns) return inverseOf(puzzle, home)
  return detour(puzzle, table, state, random, leastTurns)
}

/** A few random turns away from the state first, then the shortest way home from there. */
function detour(
  puzzle: Puzzle,
  table: DistanceTable,
  state: State,
  random: Random,
  leastTurns: number,
): Turn[] {
  const { turns } = frameOf(puzzle)
  for (;;) {
    const away: Turn[] = []
    let current = state
    while (away.length < leastTurns - 2) {
      const turn = turns[random.below(turns.length)]
      if (away.at(-1)?.grip === turn.grip) continue
      away.push(turn)
      current = turnFreely(puzzle, current, turn, new Uint8Array(current.length))
    }
    const [home] = shortestSequences(table, current, 1)
    if (home[0]?.grip === away.at(-1)?.grip) continue
    const all = [...away, ...home]
    if (all.length >= leastTurns) return inverseOf(puzzle, all)
  }
}

/**
 * Random turns of single layers, enough that every layer is turned several times; never two turns of
 * one layer in a row, nor with only parallel layers between them, and none that is blocked.
 */
function randomTurns(puzzle: Puzzle, random: Random, leastTurns: number): Turn[] {
  const { turns } = frameOf(puzzle)
  const grips = new Set(turns.map(({ grip }) => grip))
  const wanted = Math.max(leastTurns, TURNS_A_LAYER * grips.size)
  const found: Turn[] = []
  let state = start(puzzle)
  while (found.length < wanted) {
    const turn = turns[random.below(turns.length)]
    if (undoesItself(puzzle, found, turn) || blockedBy(puzzle, state, turn)) continue
    found.push(turn)
    state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
  }
  return found
}

function undoesItself(puzzle: Puzzle, before: readonly Turn[], turn: Turn): boolean {
  const axis = (each: Turn) => puzzle.grips[each.grip].axis.map(Math.abs).join()
  for (let i = before.length - 1; i >= 0 && axis(before[i]) === axis(turn); i--)
    if (before[i].grip === turn.grip) return true
  return false
}

export const scrambledState = (puzzle: Puzzle, { turns }: Scramble): State =>
  turns.reduce((state, turn) => turnFreely(puzzle, state, turn, state), start(puzzle))
