/** How a solver reads a case: directions of one colour, or bars of equal side stickers. */
import { colourIn } from '../puzzle/colours'
import {
  DIRECTIONS,
  directionOfVector,
  opposite,
  turnDirection,
  type Direction,
} from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import type { Vector } from '../rotation'
import { occupants, type State } from '../state'
import { hasColouredSides } from '../analysis/sides'
import { isOnSide } from './workpiece'
import { listed, placeWords, plural } from '../phrases'

export interface Reading {
  /** The case as it is named: the same from every hold. */
  readonly summary: string
  /** What must be where for the algorithm. */
  readonly detail: string
  /** One entry a place or layer, for telling cases apart. */
  readonly entries: readonly { readonly place: string; readonly looks: string }[]
}

/** Places of one layer, back before front, left before right (seen with the layer on top). */
export function placesOf(puzzle: Puzzle, side: Direction): number[] {
  return puzzle.pieces
    .flatMap((_, place) => (isOnSide(puzzle, place, side) ? [place] : []))
    .sort((a, b) => {
      const [p, q] = [puzzle.pieces[a].cells[0], puzzle.pieces[b].cells[0]]
      return p[2] - q[2] || p[0] - q[0] || q[1] - p[1]
    })
}

/** Where the colour of `side` looks, on the pieces of the layer held at `heldAt`. */
export function directions(
  puzzle: Puzzle,
  state: State,
  side: Direction,
  heldAt: Direction,
): Reading {
  const at = occupants(puzzle, state)
  const entries = placesOf(puzzle, heldAt).map((place) => {
    const piece = at[place]
    const looks = turnDirection(state[piece], side)
    const sides = DIRECTIONS.filter(
      (direction) => direction !== heldAt && isOnSide(puzzle, place, direction),
    )
    return {
      place: placeWords(sides),
      looks: looks.toward,
      isUp: looks === heldAt,
      isClockwise: isClockwise(heldAt, looks, puzzle.pieces[place].cells[0]),
      opposes: opposite(looks).toward,
    }
  })
  const wrong = entries.filter(({ isUp }) => !isUp)
  const toward = wrong.map(({ place, looks }) => `${looks} at the ${place}`)
  return {
    summary: `${plural(entries.length - wrong.length, 'piece')} right, ${pattern(entries)}`,
    detail: `looks ${listed(toward)}`,
    entries,
  }
}

interface Entry {
  readonly looks: string
  readonly isUp: boolean
  readonly isClockwise: boolean
  readonly opposes: string
}

/** What sets the case apart from every hold: the sense of three, or how the others look. */
function pattern(entries: readonly Entry[]): string {
  const wrong = entries.filter(({ isUp }) => !isUp)
  const ways = new Set(wrong.map(({ looks }) => looks))
  if (wrong.length === 3)
    return `the others twisted ${wrong[0].isClockwise ? 'clockwise' : 'anticlockwise'}`
  if (wrong.length === 4)
    return ways.size === 2
      ? 'two look one way and two the opposite way'
      : 'two look one way, two apart'
  if (ways.size === 1) return 'the others look the same way'
  if (isOpposed(wrong)) return 'the others look away from each other'
  return 'the others are diagonal'
}

/**
 * Whether a corner at `place` whose sticker belongs at `from` and looks toward `to` is twisted
 * clockwise, seen from outside: from, to and the outward diagonal are then left-handed.
 */
function isClockwise(from: Direction, to: Direction, place: Vector): boolean {
  const [a, b] = [from.vector, to.vector]
  const cross = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
  return cross.reduce((sum, c, i) => sum + c * place[i], 0) < 0
}

const isOpposed = ([a, b]: readonly Entry[]): boolean => a.looks === b.opposes

/** Equal side stickers next to each other, in the layer held at `heldAt` and the one opposite. */
export function bars(puzzle: Puzzle, state: State, heldAt: Direction): Reading {
  const layers = [heldAt, opposite(heldAt)]
  const found = layers.map((layer) =>
    DIRECTIONS.filter((side) => side !== layer && side !== opposite(layer)).filter((side) => {
      if (!hasColouredSides(puzzle)) return belongTogether(puzzle, state, layer, side)
      const shown = stickersShown(puzzle, state, layer, side)
      return shown.length > 1 && shown.every((colour) => colour === shown[0])
    }),
  )
  const words = found.map((sides, i) => {
    const layer = `${layers[i].adjective} layer`
    if (sides.length === 4) return `the ${layer} is whole`
    if (sides.length === 0) return `no bar in the ${layer}`
    return `${sides.length === 1 ? 'one bar' : plural(sides.length, 'bar')} in the ${layer}`
  })
  const placed = found.flatMap((sides, i) =>
    sides.length > 0 && sides.length < 4
      ? [`the bar of the ${layers[i].adjective} layer is ${listed(sides.map(({ at }) => at))}`]
      : [],
  )
  return {
    summary: listed(words),
    detail: placed.length > 0 ? listed(placed) : 'any side may be in front',
    entries: found.map((sides, i) => ({
      place: `${layers[i].adjective} layer`,
      looks: sides.map(({ name }) => name).join(),
    })),
  }
}

/** Where sides have no colours, a bar is two neighbours that lie side by side as they do at home. */
function belongTogether(puzzle: Puzzle, state: State, layer: Direction, side: Direction): boolean {
  const at = occupants(puzzle, state)
  const rotations = placesOf(puzzle, layer)
    .filter((place) => isOnSide(puzzle, place, side))
    .map((place) => state[at[place]])
  return rotations.length > 1 && rotations.every((rotation) => rotation === rotations[0])
}

function stickersShown(puzzle: Puzzle, state: State, layer: Direction, side: Direction): string[] {
  const at = occupants(puzzle, state)
  return placesOf(puzzle, layer)
    .filter((place) => isOnSide(puzzle, place, side))
    .map((place) => {
      const piece = at[place]
      const face = puzzle.pieces[piece].faces.find(
        ({ normal }) => turnDirection(state[piece], directionOfVector(normal)) === side,
      )
      return face ? colourIn(puzzle.definition.colours, face.colour).id : ''
    })
}
