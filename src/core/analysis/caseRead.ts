/** How a case shows itself in one layer: where the colour of its side looks, and equal side colours side by side. */
import {
  DIRECTIONS,
  directionOfVector,
  opposite,
  turnDirection,
  type Direction,
} from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { rotate, type Rotation } from '../rotation'
import type { State } from '../state'
import { homeFilled } from './who'
import { hasColouredSides, piecesShowing } from './sides'

/** A position, and the rotation that a finished piece has in it. */
interface Held {
  readonly state: State
  readonly frame: Rotation
}

export interface Look {
  /** A place of the layer, by the piece whose home it is, and what lies there. */
  readonly place: number
  readonly piece: number
  /** Where the side of that piece looks which belongs on the side of the layer. */
  readonly toward: Direction
}

/** For each place of the layer on a side of the finished puzzle; places where nothing lies are left out. */
export function looksIn(puzzle: Puzzle, { state, frame }: Held, side: Direction): Look[] {
  const layer = new Set(piecesShowing(puzzle, side))
  return Array.from(state).flatMap((r, piece) => {
    const place = homeFilled(puzzle, frame, piece, r)
    if (place === undefined || !layer.has(place)) return []
    return [{ place, piece, toward: turnDirection(r, side) }]
  })
}

export const PATTERNS = [
  // Three of four corners are twisted, one way.
  'clockwise',
  'anticlockwise',
  // Two of four look elsewhere: the same way, away from each other, or they lie across from each other.
  'sameWay',
  'apart',
  'diagonal',
  // All four do.
  'twoAndTwo',
  'twoApart',
] as const

export type Pattern = (typeof PATTERNS)[number]

/** What sets a case apart from every hold; undefined where it has no such name. */
export function patternOf(
  puzzle: Puzzle,
  { frame }: Pick<Held, 'frame'>,
  side: Direction,
  looks: readonly Look[],
): Pattern | undefined {
  const up = turnDirection(frame, side)
  const wrong = looks.filter(({ toward }) => toward !== up)
  const ways = new Set(wrong.map(({ toward }) => toward))
  const [first, second] = wrong
  if (wrong.length < 2) return undefined
  if (wrong.length === 3)
    return isClockwise(puzzle, frame, up, first) ? 'clockwise' : 'anticlockwise'
  if (wrong.length > 3) return ways.size === 2 ? 'twoAndTwo' : 'twoApart'
  if (areAcross(puzzle, first.place, second.place, side)) return 'diagonal'
  if (ways.size === 1) return 'sameWay'
  return second.toward === opposite(first.toward) ? 'apart' : undefined
}

/** Whether two places of a side's layer share no other side. */
const areAcross = ({ pieces }: Puzzle, a: number, b: number, side: Direction): boolean =>
  pieces[a].cells[0].every((c, axis) => side.vector[axis] !== 0 || c === -pieces[b].cells[0][axis])

/**
 * Whether a corner whose side belongs at `from` and looks toward another is twisted clockwise, seen from outside: from,
 * to and the outward diagonal are then left-handed.
 */
function isClockwise(
  puzzle: Puzzle,
  frame: Rotation,
  from: Direction,
  { place, toward }: Look,
): boolean {
  const [a, b] = [from.vector, toward.vector]
  const outward = rotate(frame, puzzle.pieces[place].cells[0])
  const cross = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
  return cross.reduce((sum, c, i) => sum + c * outward[i], 0) < 0
}

/**
 * The sides, as it is held, on which what lies in the layer of a side shows one colour; where sides have no colours,
 * those on which neighbours lie side by side as they do when finished.
 */
export function barsIn(puzzle: Puzzle, held: Held, side: Direction): Direction[] {
  const { state, frame } = held
  const layer = turnDirection(frame, side)
  const looks = looksIn(puzzle, held, side)
  return DIRECTIONS.filter((each) => each !== layer && each !== opposite(layer)).filter((at) => {
    const home = DIRECTIONS.find((each) => turnDirection(frame, each) === at)
    const along = new Set(home && piecesShowing(puzzle, home))
    const shown = looks
      .filter(({ place }) => along.has(place))
      .map(({ piece }) => {
        if (!hasColouredSides(puzzle)) return state[piece]
        const { faces } = puzzle.pieces[piece]
        return faces.find(
          ({ normal }) => turnDirection(state[piece], directionOfVector(normal)) === at,
        )?.colour
      })
    return shown.length > 1 && shown.every((each) => each === shown[0])
  })
}
