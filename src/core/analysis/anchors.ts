/**
 * The pieces that never leave their places, such as the centres of a 3x3x3: where they lie tells how the
 * puzzle is held, whatever else is wrong; those at the ends of a box tell which end is up.
 */
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { State } from '../state'
import { outerReachOf } from './placements'

const known = new WeakMap<Puzzle, readonly number[]>()

/** None on a puzzle all of whose pieces travel. */
export function anchorsOf(puzzle: Puzzle): readonly number[] {
  const found = known.get(puzzle) ?? findAnchors(puzzle)
  known.set(puzzle, found)
  return found
}

function findAnchors(puzzle: Puzzle): number[] {
  const reach = outerReachOf(puzzle)
  return puzzle.pieces.flatMap(({ faces }, p) =>
    faces.length > 0 && new Set(reach[p].map((r) => puzzle.slot[24 * p + r])).size === 1 ? [p] : [],
  )
}

/** The holds under which every anchor lies in its place; all holds where there is none. */
export function anchoredHolds(
  puzzle: Puzzle,
  state: State,
  table?: Uint8Array,
): readonly Rotation[] {
  const still = anchorsOf(puzzle)
  if (still.length === 0) return puzzle.holds
  return puzzle.holds.filter((hold) =>
    still.every((p) => {
      const r = table ? table[24 * p + state[p]] : state[p]
      return puzzle.slot[24 * p + hold] === puzzle.slot[24 * p + r]
    }),
  )
}
