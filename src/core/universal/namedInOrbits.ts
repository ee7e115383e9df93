/**
 * Equal pieces told apart by where they can be. Where the shape changes, equal pieces may belong to orbits
 * that never meet in shape: then each must lie where its own orbit takes it, and which is which is a matching
 * of pieces and places (augmenting paths, Kuhn 1955).
 */
import { lookAlikesOf, namedAtHome } from '../analysis/lookAlikes'
import { canBlock, reachOf } from '../analysis/placements'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import { workOf } from './orbitsAtWork'

/** How a piece shows a look where its orbit takes it; undefined if it cannot. */
function rotationInOrbit(puzzle: Puzzle, piece: number, look: number): Rotation | undefined {
  const orbit = workOf(puzzle).sums.orbits.find(({ places }) => places.includes(piece))
  return reachOf(puzzle)[piece].find((r) => {
    if (puzzle.look[24 * piece + r] !== look) return false
    if (!orbit) return true
    const q = orbit.places.indexOf(puzzle.place[24 * piece + r])
    if (q < 0) return false
    const own = orbit.reference[orbit.places.indexOf(piece)]
    const turned = multiply(INVERSE[orbit.reference[q]], multiply(r, own))
    return orbit.orientations.includes(turned)
  })
}

/** Pieces, of a state in the frame and in shape, that lie or are turned as no turns of their orbit make it. */
export const outsideOrbits = (puzzle: Puzzle, state: State): number[] =>
  Array.from(state).flatMap((r, p) =>
    rotationInOrbit(puzzle, p, puzzle.look[24 * p + r]) === undefined ? [p] : [],
  )

/**
 * The same look with what looks at home named at home, and all equal pieces in their own orbits, if that can
 * be; otherwise some are outside, whatever they are called.
 */
export function namedInOrbits(puzzle: Puzzle, given: State): State {
  const state = namedAtHome(puzzle, given)
  if (!canBlock(puzzle)) return state
  const outside = new Set(outsideOrbits(puzzle, state))
  if (outside.size === 0) return state
  for (const alike of lookAlikesOf(puzzle).classes) {
    if (!alike.some((p) => outside.has(p))) continue
    const open = alike.filter((p) => state[p] !== IDENTITY)
    const matched = matching(
      puzzle,
      open,
      open.map((p) => puzzle.look[24 * p + state[p]]),
    )
    matched?.forEach(([piece, rotation]) => (state[piece] = rotation))
  }
  return state
}

/** Every look shown by a piece of its own; undefined if there are not enough that can. */
function matching(
  puzzle: Puzzle,
  pieces: readonly number[],
  looks: readonly number[],
): [number, Rotation][] | undefined {
  const ways = pieces.map((p) => looks.map((look) => rotationInOrbit(puzzle, p, look)))
  const pieceOf = new Map<number, number>()
  const place = (i: number, tried: Set<number>): boolean =>
    looks.some((_, at) => {
      if (ways[i][at] === undefined || tried.has(at)) return false
      tried.add(at)
      const other = pieceOf.get(at)
      if (other !== undefined && !place(other, tried)) return false
      pieceOf.set(at, i)
      return true
    })
  if (!pieces.every((_, i) => place(i, new Set()))) return undefined
  return [...pieceOf].map(([at, i]) => [pieces[i], ways[i][at] as Rotation])
}
