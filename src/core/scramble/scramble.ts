/**
 * Honest scrambles. A puzzle whose states can all be numbered gets a uniformly drawn state and turns
 * that lead to it; any other gets random turns.
 */
import { lineOf } from '../puzzle/frameReached'
import { coordinatesOf } from '../search/coordinates'
import { frameOf } from '../analysis/frame'
import { changesShape } from '../analysis/layouts'
import { canBlock } from '../analysis/placements'
import { orbitsWithoutTips, tipsOf } from '../analysis/tips'
import { NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { seededRandom, type Random } from '../random'
import {
  halfTurnTable,
  shortestSequences,
  UNREACHED,
  type DistanceTable,
} from '../search/distanceTable'
import { IDENTITY, multiply } from '../rotation'
import { blockOf, inverseOf, start, turnFreely, type State } from '../state'

export interface Scramble {
  readonly seed: number
  readonly turns: readonly Turn[]
  /** The turns cut into parts with a purpose of their own; two where the shape changes. */
  readonly phases: readonly (readonly Turn[])[]
}

/** Shortest scramble that is given out for a drawn state, in turns. */
export const LEAST_TURNS = 9

/** Turns of a random-turn scramble, for each layer that can be turned. */
const TURNS_A_LAYER = 5

/** Most arrangements and orientations for which all states are numbered: of one orbit, of several. */
const NUMBERED = [12_000_000, 4_000_000]

/** Whether scrambles of this puzzle are uniformly drawn states. */
export function isDrawnUniformly(puzzle: Puzzle): boolean {
  if (canBlock(puzzle)) return false
  const orbits = orbitsWithoutTips(puzzle)
  const most = NUMBERED[orbits.length > 1 ? 1 : 0]
  let all = 1
  for (const { places, orientations } of orbits)
    for (let i = 1; i <= places.length && all <= most; i++) all *= i * orientations.length
  return all <= most
}

/**
 * A drawn state where all can be numbered. Otherwise random turns, five for each layer that can be
 * turned alone; where the shape changes first such as keep it, then any that are free, the same
 * number again and on until the puzzle is out of shape.
 */
export function scramble(puzzle: Puzzle, seed: number, leastTurns = LEAST_TURNS): Scramble {
  const random = seededRandom(seed)
  const finished = start(puzzle)
  const phases = isDrawnUniformly(puzzle)
    ? [turnsToDrawn(puzzle, random, leastTurns)]
    : changesShape(puzzle)
      ? twoPhases(puzzle, random, leastTurns)
      : [randomTurns(puzzle, random, finished, leastTurns)]
  return { seed, turns: phases.flat(), phases }
}

/** Second phases that are tried until one ends out of shape. */
const SHAPES_TRIED = 50

function twoPhases(puzzle: Puzzle, random: Random, leastTurns: number): Turn[][] {
  const shaped = randomTurns(puzzle, random, start(puzzle), leastTurns, (state, turn) =>
    keepsShape(puzzle, state, turn),
  )
  const between = made(puzzle, start(puzzle), shaped)
  for (let tried = 0; ; tried++) {
    const free = randomTurns(puzzle, random, between, leastTurns)
    // Blocks can leave no turn but such as keep the shape.
    if (tried >= SHAPES_TRIED) return [shaped, free]
    if (free.length === 0 || free[0].grip === shaped.at(-1)?.grip) continue
    const end = made(puzzle, between, free)
    if (!isInShape(puzzle, end)) return [shaped, free]
  }
}

const made = (puzzle: Puzzle, from: State, turns: readonly Turn[]): State =>
  turns.reduce<State>((state, turn) => turnFreely(puzzle, state, turn, state), new Uint8Array(from))

/** Whether every piece fills a place of the finished puzzle. */
export const isInShape = (puzzle: Puzzle, state: State): boolean =>
  state.every((r, p) => puzzle.place[24 * p + r] !== NO_PLACE)

const keepsShape = (puzzle: Puzzle, state: State, turn: Turn): boolean =>
  isInShape(puzzle, turnFreely(puzzle, state, turn, new Uint8Array(state.length)))

/** A state drawn uniformly among all that turns reach, frame piece home. */
export function drawState(puzzle: Puzzle, random: Random): State {
  const { size, stateAt } = coordinatesOf(puzzle)
  const { distances } = halfTurnTable(puzzle)
  for (;;) {
    const index = random.below(size)
    if (distances[index] === UNREACHED) continue
    const state = stateAt(index)
    for (const { piece, turns } of tipsOf(puzzle)) {
      const ways = [IDENTITY, ...turns.map(({ rotation }) => rotation)]
      state[piece] = multiply(ways[random.below(ways.length)], state[piece])
    }
    return state
  }
}

/** Turns that lead to a uniformly drawn state, never fewer than asked. */
function turnsToDrawn(puzzle: Puzzle, random: Random, leastTurns: number): Turn[] {
  const state = drawState(puzzle, random)
  const table = halfTurnTable(puzzle)
  const ways = shortestSequences(puzzle, table, state, 20)
  const home = ways[random.below(ways.length)]
  if (home.length >= leastTurns) return inverseOf(puzzle, home)
  return detour(puzzle, table, state, random, leastTurns) ?? inverseOf(puzzle, home)
}

/** Detours that are tried: on the smallest puzzles some states have none that is long enough. */
const DETOURS = 200

/** A few random turns away from the state first, then the shortest way home from there. */
function detour(
  puzzle: Puzzle,
  table: DistanceTable,
  state: State,
  random: Random,
  leastTurns: number,
): Turn[] | undefined {
  const { turns } = frameOf(puzzle)
  if (turns.every(({ grip }) => grip === turns[0].grip)) return undefined
  for (let tried = 0; tried < DETOURS; tried++) {
    const away: Turn[] = []
    let current = state
    while (away.length < leastTurns - 2) {
      const turn = turns[random.below(turns.length)]
      if (away.at(-1)?.grip === turn.grip) continue
      away.push(turn)
      current = turnFreely(puzzle, current, turn, new Uint8Array(current.length))
    }
    const [home] = shortestSequences(puzzle, table, current, 1)
    if (home[0]?.grip === away.at(-1)?.grip) continue
    const all = [...away, ...home]
    if (all.length >= leastTurns) return inverseOf(puzzle, all)
  }
  return undefined
}

/**
 * Random turns of single layers; never two turns of one layer in a row, nor with only parallel layers
 * between them, and none that is blocked or that is not wanted.
 */
function randomTurns(
  puzzle: Puzzle,
  random: Random,
  from: State,
  leastTurns: number,
  isWanted: (state: State, turn: Turn) => boolean = () => true,
): Turn[] {
  const { turns } = frameOf(puzzle)
  const grips = new Set(turns.map(({ grip }) => grip))
  const wanted = Math.max(leastTurns, TURNS_A_LAYER * grips.size)
  const found: Turn[] = []
  let state: State = new Uint8Array(from)
  while (found.length < wanted) {
    const free = turns.filter(
      (turn) =>
        !undoesItself(puzzle, found, turn) &&
        !blockOf(puzzle, state, turn) &&
        isWanted(state, turn),
    )
    // Everything is blocked but the way back: as far as it goes.
    if (free.length === 0) break
    const turn = free[random.below(free.length)]
    found.push(turn)
    state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
  }
  return found
}

function undoesItself(puzzle: Puzzle, before: readonly Turn[], turn: Turn): boolean {
  const axis = (each: Turn) => lineOf(puzzle.grips[each.grip].axis)
  for (let i = before.length - 1; i >= 0 && axis(before[i]) === axis(turn); i--)
    if (before[i].grip === turn.grip) return true
  return false
}

export const scrambledState = (puzzle: Puzzle, { turns }: Scramble): State =>
  made(puzzle, start(puzzle), turns)
