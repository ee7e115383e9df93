/** How wide the cuts of a puzzle are drawn: everywhere the same. */
import { cutFor, innerRadius } from '../geometry/outline'
import type { Puzzle } from './compile'
import { drawnFaces } from './drawnFaces'

const known = new WeakMap<Puzzle, number>()

/** Half of it, in cells: what each of two neighbours leaves free. */
export function cutWidth(puzzle: Puzzle): number {
  const found = known.get(puzzle)
  if (found !== undefined) return found
  const rooms = puzzle.pieces.flatMap((piece) =>
    drawnFaces(piece).map(({ polygon, normal }) => innerRadius(polygon, normal)),
  )
  const cut = cutFor(Math.min(...rooms))
  known.set(puzzle, cut)
  return cut
}
