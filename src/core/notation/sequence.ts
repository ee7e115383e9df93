/**
 * Sequences of turns with their effect tabulated. Pieces move independently of each other (on a
 * puzzle none of whose turns is blocked), so a whole sequence is one table from (piece, rotation) to
 * rotation, and doing it costs one look-up a piece.
 */
import { memoised } from '../memo'
import { readTurns } from './read'
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { must } from '../result'
import { IDENTITY, multiply, PRODUCT, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'
import { handCost, type Hand } from './handCost'

export interface Sequence {
  readonly turns: readonly Turn[]
  /** `[24 * piece + rotation]`: the rotation after the sequence. */
  readonly table: Uint8Array
  /** What its whole-puzzle turns add up to. */
  readonly hold: Rotation
  /** In the hand, for either hand. */
  readonly costs: Readonly<Record<Hand, number>>
  /** Joined sequences that begin with this one, by what follows. */
  readonly joined: Map<Sequence, Sequence>
  /** The sequence done no times, once, twice …, as far as it was asked for. */
  readonly powers: Sequence[]
}

/** A sequence by its canonical text, read and tabulated once. */
export const sequence = memoised((puzzle: Puzzle, text: string): Sequence =>
  sequenceOf(puzzle, must(readTurns(puzzle, text))),
)

export function sequenceOf(puzzle: Puzzle, turns: readonly Turn[]): Sequence {
  const table = new Uint8Array(puzzle.pieces.length * ROTATION_COUNT)
  for (let at = 0; at < table.length; at++) {
    const base = at - (at % ROTATION_COUNT)
    let r = at % ROTATION_COUNT
    for (const turn of turns)
      if (puzzle.carry[turn.grip][base + r] === IN) r = PRODUCT[24 * turn.rotation + r]
    table[at] = r
  }
  const hold = turns.reduce(
    (sum, turn) => (turn.whole ? multiply(turn.rotation, sum) : sum),
    IDENTITY,
  )
  const costs = { right: handCost(turns), left: handCost(turns, 'left') }
  return { turns, table, hold, costs, joined: new Map(), powers: [] }
}

/** One sequence after another, tabulated once for each pair. */
export function join(puzzle: Puzzle, first: Sequence, ...rest: readonly Sequence[]): Sequence {
  return rest.reduce((sum, next) => {
    if (next.turns.length === 0) return sum
    if (sum.turns.length === 0) return next
    let both = sum.joined.get(next)
    if (!both) {
      both = sequenceOf(puzzle, [...sum.turns, ...next.turns])
      sum.joined.set(next, both)
    }
    return both
  }, first)
}

/** The same, made from the tables and not kept. */
export function inARow(all: readonly Sequence[]): Sequence {
  const turns = all.flatMap((each) => [...each.turns])
  const table = all[0].table.map((_, at) => {
    const first = at - (at % ROTATION_COUNT)
    return all.reduce((r, each) => each.table[first + r], at % ROTATION_COUNT)
  })
  const hold = all.reduce((sum, each) => multiply(each.hold, sum), IDENTITY)
  const costs = { right: handCost(turns), left: handCost(turns, 'left') }
  return { turns, table, hold, costs, joined: new Map(), powers: [] }
}

/** A sequence some times over. */
export function repeated(puzzle: Puzzle, what: Sequence, times: number): Sequence {
  const { powers } = what
  for (let n = powers.length; n <= times; n++)
    powers.push(n === 0 ? sequence(puzzle, '') : join(puzzle, powers[n - 1], what))
  return powers[times]
}

/** The state after a sequence. */
export function doSequence({ table }: Sequence, state: State): State {
  const next = new Uint8Array(state.length)
  for (let p = 0; p < state.length; p++) next[p] = table[24 * p + state[p]]
  return next
}
