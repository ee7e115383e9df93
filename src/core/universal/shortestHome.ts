/** The fewest turns home of small puzzles, from whichever table of all their states serves. */
import { frameOf } from '../analysis/frame'
import { layoutsOf } from '../analysis/layouts'
import { lookAlikesOf } from '../analysis/lookAlikes'
import { countUnder } from '../analysis/order'
import { moveOf } from '../analysis/orbits'
import { canBlock } from '../analysis/placements'
import { orbitsWithoutTips } from '../analysis/tips'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import type { State } from '../state'
import { areMovesAll, movesOf } from './moves'
import {
  knownToTable,
  lookTable,
  NAMINGS_LIMIT,
  shortestSequences,
  STATE_LIMIT,
} from '../search/distanceTable'
import { PictureTable } from '../search/pictureTable'

interface Table {
  /** `numbered`: all states by number; `pictures`: found by their looks. */
  readonly kind: 'numbered' | 'pictures'
  /** All pieces told apart: of pictures there are no more. */
  readonly states: number
}

const tables = new WeakMap<Puzzle, Table | null>()

/** Which table serves a puzzle; undefined where there are too many states. */
export function tableOf(puzzle: Puzzle): Table | undefined {
  const known = tables.get(puzzle)
  if (known !== undefined) return known ?? undefined
  const table = chooseTable(puzzle)
  const found = table.states <= STATE_LIMIT ? table : undefined
  tables.set(puzzle, found ?? null)
  return found
}

function chooseTable(puzzle: Puzzle): Table {
  if (canBlock(puzzle)) return { kind: 'pictures', states: countOfGlued(puzzle) }
  const all = rearrangements(puzzle)
  if (all <= STATE_LIMIT && namingsOf(puzzle) <= NAMINGS_LIMIT)
    return { kind: 'numbered', states: all }
  if (all > COUNTED) return { kind: 'pictures', states: Infinity }
  const { turns, piece } = frameOf(puzzle)
  const moves = turns.map((turn) => moveOf(puzzle, turn))
  return { kind: 'pictures', states: Number(countUnder(puzzle, moves, piece)) }
}

/** Rearrangements of all orbits up to which it is worth while to count what turns reach of them. */
const COUNTED = 1e13

/** All arrangements and orientations of all orbits, tips left out. */
const rearrangements = (puzzle: Puzzle): number =>
  orbitsWithoutTips(puzzle).reduce(
    (product, { places, orientations }) =>
      places.reduce((own, _, i) => own * (i + 1) * orientations.length, product),
    1,
  )

/** In how many ways look-alikes can be told apart, at most. */
function namingsOf(puzzle: Puzzle): number {
  const { classes, unseen } = lookAlikesOf(puzzle)
  const trades = classes.flatMap((alike) => alike.map((_, i) => i + 1))
  const spins = unseen.map((rotations) => Math.max(1, rotations.length))
  return [...trades, ...spins].reduce((product, ways) => product * ways, 1)
}

/** States of a glued puzzle; infinite where they are not known. */
function countOfGlued(puzzle: Puzzle): number {
  const layouts = layoutsOf(puzzle)
  if (!layouts || !areMovesAll(puzzle)) return Infinity
  const effects = movesOf(puzzle).map(({ effect }) => effect)
  return Number(countUnder(puzzle, effects, frameOf(puzzle).piece)) * layouts.list.length
}

const pictures = new WeakMap<Puzzle, PictureTable>()

/** Builds the table, if it is not there yet. Throws if the puzzle is too large. */
export function prepareShortest(
  puzzle: Puzzle,
  progress: (share: number) => void = () => undefined,
): void {
  if (tableOf(puzzle)?.kind === 'numbered') lookTable(puzzle, progress)
  else picturesOf(puzzle, progress)
}

function picturesOf(puzzle: Puzzle, progress?: (share: number) => void): PictureTable {
  const known = pictures.get(puzzle)
  if (known) return known
  const states = tableOf(puzzle)?.states ?? STATE_LIMIT
  const table = must(
    PictureTable.build(puzzle, STATE_LIMIT, (count) => progress?.(Math.min(1, count / states))),
  )
  pictures.set(puzzle, table)
  return table
}

/** Sequences of the fewest turns for a state in the frame, up to a number; undefined if none lead home. */
export function shortestHome(puzzle: Puzzle, state: State, limit: number): Turn[][] | undefined {
  if (tableOf(puzzle)?.kind === 'pictures') return picturesOf(puzzle).shortest(state, limit)
  const table = lookTable(puzzle)
  const named = knownToTable(puzzle, table, state)
  return named && shortestSequences(puzzle, table, named, limit)
}
