/** Boxes that turn by half turns: what stays, what is half done, what a twin would show. */
import type { Look } from '../../analysis/who'
import { looksOf } from '../../analysis/who'
import { reachOf } from '../../analysis/placements'
import { directionOfVector } from '../../puzzle/directions'
import { multiply, rotate } from '../../rotation'
import { indexOf, type BoxesKind } from '../claim'
import { indices, isHome, movedBetween, placeFilled } from '../evidence'
import type { Judges } from './judge'

const same = (a: readonly Look[], b: readonly Look[]): boolean =>
  JSON.stringify(a) === JSON.stringify(b)

export const OF_BOXES: Judges<BoxesKind> = {
  matchingPair({ pieces, colour, at: name }, { puzzle, now, start, end }) {
    const own = indices(puzzle, pieces)
    const moved = movedBetween(puzzle, start, end)
    const shows = (p: number) =>
      puzzle.pieces[p].faces.some(
        (face) =>
          face.colour === colour &&
          directionOfVector(rotate(now.state[p], face.normal))?.name === name,
      )
    return own.length === 2 && own.every((p) => shows(p) && !moved.includes(p))
  },
  workSide: ({ turn, times }, { turns }) =>
    turns.filter(({ name }) => name === turn).length === times,
  twinWouldShow({ piece, twin, looks, not }, { puzzle, end }) {
    const [p, q] = [indexOf(puzzle, piece), indexOf(puzzle, twin)]
    const place = placeFilled(puzzle, end, p)
    const begins = (told: readonly Look[], all: readonly Look[]) =>
      same(told, all.slice(0, told.length))
    return (
      isHome(puzzle, end, p) &&
      begins(not, looksOf(puzzle, p, end.state[p])) &&
      !same(looks, not) &&
      reachOf(puzzle)[q].some(
        (r) =>
          puzzle.place[24 * q + r] === place &&
          begins(looks, looksOf(puzzle, q, multiply(end.frame, r))),
      )
    )
  },
}
