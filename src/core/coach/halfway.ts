/** In a long row of turns, something to see on the way: where a piece lies after about half of them. */
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { State } from '../state'
import type { RouteStep } from './route'
import { homeFilled } from '../analysis/who'
import { after } from './workpiece'

/** Rows up to this length need nothing on the way. */
const SHORT_ROW = 10
/** How far from the middle of the row it is looked for. */
const ASIDE = 3

/** @param pieces which to speak of, the best first */
export function halfwayOf(
  puzzle: Puzzle,
  state: State,
  frame: Rotation,
  turns: readonly Turn[],
  pieces: readonly number[],
): RouteStep['halfway'] {
  const held = turns.findIndex(({ whole }) => !whole)
  const row = turns.length - Math.max(0, held)
  if (row <= SHORT_ROW) return undefined
  const middle = turns.length - Math.ceil(row / 2)
  const positions = Array.from({ length: 2 * ASIDE + 1 }, (_, i) => middle + nthAside(i))
  for (const piece of pieces)
    for (const at of positions) {
      const now = after(puzzle, state, frame, turns.slice(0, at))
      const place = homeFilled(puzzle, now.frame, piece, now.state[piece])
      if (place === undefined) continue
      const made = turns.slice(0, at).filter(({ whole }) => !whole).length
      return {
        after: at,
        says: [
          { kind: 'afterTurns', count: made },
          { kind: 'pieceAt', piece: puzzle.pieces[piece].id, place: puzzle.pieces[place].id },
        ],
      }
    }
  return undefined
}

/** 0, 1, -1, 2, -2 … */
const nthAside = (i: number): number => (i % 2 === 1 ? (i + 1) / 2 : -i / 2)
