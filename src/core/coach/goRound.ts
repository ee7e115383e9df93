/** Which way three go round, where all of them lie in one layer: as a person says it who looks at that layer. */
import { hasColouredSides } from '../analysis/sides'
import type { Claim } from '../claims/claim'
import { cross, dot, subtract } from '../geometry/vector'
import { sidesShown } from '../phrases'
import type { Puzzle } from '../puzzle/compile'
import { rotate, type Rotation } from '../rotation'
import type { State } from '../state'
import type { RouteLine } from './route'

/** The sides that one sees come first. */
const ORDER = ['up', 'front', 'right', 'left', 'down', 'back'] as const

/** @param lines three pieces, each with the place that it goes to, which another of them leaves */
export function goRound(
  puzzle: Puzzle,
  { state, frame }: { readonly state: State; readonly frame: Rotation },
  lines: readonly RouteLine[],
): Claim[] {
  if (!hasColouredSides(puzzle) || lines.length !== 3) return []
  const index = (id: string | undefined) => puzzle.pieces.findIndex((piece) => piece.id === id)
  const pieces = lines.map(({ piece }) => index(piece))
  // Of a tetrahedron no layer looks to one of the six sides.
  const isLevel = pieces.every((p) =>
    puzzle.pieces[p].faces.every(({ normal }) => normal.filter((c) => c !== 0).length === 1),
  )
  if (!isLevel) return []
  const shown = pieces.map((p) => sidesShown(puzzle, p, state[p]))
  const side = ORDER.flatMap(
    (name) =>
      shown[0].find((each) => each.name === name && shown.every((all) => all.includes(each))) ?? [],
  )[0]
  const from = lines.map(({ says: [at] }) => (at?.kind === 'pieceAt' ? index(at.place) : -1))
  const next = (i: number) => (i < 0 ? -1 : from.indexOf(index(lines[i].to)))
  const order = [0, next(0), next(next(0))]
  if (!side || from.includes(-1) || new Set(order).size < 3 || order.includes(-1)) return []
  const [a, b, c] = order.map((i) => rotate(frame, puzzle.pieces[from[i]].cells[0]))
  const round = dot(cross(subtract(b, a), subtract(c, b)), side.vector)
  if (round === 0) return []
  return [{ kind: 'goRound', at: side.name, ...(round < 0 ? { isClockwise: true } : {}) }]
}
