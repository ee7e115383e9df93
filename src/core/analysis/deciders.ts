/**
 * The pieces that decide which turns are free: those that can be cut, and those that can lie in a cap. Where
 * they lie is all that must be known of a state to see what is blocked.
 */
import { IN, STRADDLES, type Puzzle, type Turn } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import { canBeCut, reachOf } from './placements'

const known = new WeakMap<Puzzle, readonly number[]>()

export function decidersOf(puzzle: Puzzle): readonly number[] {
  const found = known.get(puzzle)
  if (found) return found
  const caps = puzzle.carry.filter((_, grip) => puzzle.grips[grip].condition !== null)
  const deciders = reachOf(puzzle).flatMap((rotations, p) =>
    canBeCut(puzzle, p) || rotations.some((r) => caps.some((table) => table[24 * p + r] === IN))
      ? [p]
      : [],
  )
  known.set(puzzle, deciders)
  return deciders
}

/**
 * Whether a turn would cut a piece, or needs a cap that is not complete.
 *
 * @param rotations of any pieces, the deciders last
 */
export function isBlocked(
  puzzle: Puzzle,
  deciders: readonly number[],
  rotations: Uint8Array,
  { grip }: Turn,
): boolean {
  const carry = puzzle.carry[grip]
  const { condition } = puzzle.grips[grip]
  const first = rotations.length - deciders.length
  let cells = 0
  for (let i = 0; i < deciders.length; i++) {
    const how = carry[24 * deciders[i] + rotations[first + i]]
    if (how === STRADDLES) return true
    if (how === IN) cells += puzzle.pieces[deciders[i]].cells.length
  }
  return condition !== null && cells !== condition.complete
}

/** The rotations of some pieces after a turn that is free. */
export function turnedRotations(
  puzzle: Puzzle,
  pieces: readonly number[],
  rotations: Uint8Array,
  turn: Turn,
): Uint8Array {
  const carry = puzzle.carry[turn.grip]
  const next = new Uint8Array(rotations)
  for (let i = 0; i < pieces.length; i++)
    if (carry[24 * pieces[i] + rotations[i]] === IN)
      next[i] = PRODUCT[24 * turn.rotation + rotations[i]]
  return next
}
