/**
 * What a sequence does to whatever fills each place: `effect[q]` is the rotation that the piece in place
 * q gets. Which layer a piece is in depends on its place alone, so effects compose without a state.
 */
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { INVERSE, PRODUCT } from '../rotation'
import { turnFreely, type State } from '../state'

export type Effect = Uint8Array

export const effectOfTurn = (puzzle: Puzzle, turn: Turn): Effect =>
  Uint8Array.from(puzzle.pieces, (_, q) =>
    puzzle.carry[turn.grip][24 * q] === IN ? turn.rotation : 0,
  )

/** First one, then the other; both must take places to places. */
export function followedBy(puzzle: Puzzle, first: Effect, second: Effect, into?: Effect): Effect {
  const result = into ?? new Uint8Array(first.length)
  for (let q = 0; q < first.length; q++) {
    const r = first[q]
    result[q] = PRODUCT[24 * second[puzzle.place[24 * q + r]] + r]
  }
  return result
}

export function inverseEffect(puzzle: Puzzle, effect: Effect): Effect {
  const result = new Uint8Array(effect.length)
  effect.forEach((r, q) => (result[puzzle.place[24 * q + r]] = INVERSE[r]))
  return result
}

/**
 * What turns do that begin and end in shape. They are made on the finished puzzle, because on the way pieces
 * may lie where no place is.
 */
export const effectOf = (puzzle: Puzzle, turns: readonly Turn[]): Effect =>
  turns.reduce<Effect>(
    (effect, turn) => turnFreely(puzzle, effect, turn, effect),
    new Uint8Array(puzzle.pieces.length),
  )

/** The state after an effect, for states whose pieces all fill places. */
export function applyEffect(puzzle: Puzzle, state: State, effect: Effect): State {
  const next = new Uint8Array(state.length)
  state.forEach((r, p) => (next[p] = PRODUCT[24 * effect[puzzle.place[24 * p + r]] + r]))
  return next
}
