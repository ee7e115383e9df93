/** A state drawn flat: outlines of the stickers that an eye sees, nearest last. */
import { colourIn, type Mark, type Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { directionOfVector, type FaceName } from '@/core/puzzle/directions'
import { rotate, type Vector } from '@/core/rotation'
import type { State } from '@/core/state'
import { eyeOf, type WindowName } from '../camera'

type Point = readonly [number, number]

export interface FlatSticker {
  readonly piece: string
  /** The side on which it is seen. */
  readonly side: FaceName
  readonly shade: string
  readonly mark: Mark
  /** The whole outline, and the coloured part inside it. */
  readonly edge: readonly Point[]
  readonly inner: readonly Point[]
  /** For the mark: the middle, and the images of the two directions of the face. */
  readonly middle: Point
  readonly axes: readonly [Point, Point]
}

/** Distance of the eye in radii of the sphere around the puzzle. */
const EYE_DISTANCE = 3.4
const INSET = 0.86

/** In a square from -1 to 1, y down; the sphere around the puzzle just fits. */
export function project(
  puzzle: Puzzle,
  state: State,
  scheme: Scheme,
  name: WindowName,
): FlatSticker[] {
  const radius = length(puzzle.definition.mechanism.size) / 2
  const eye = scale(unit(eyeOf(name)), EYE_DISTANCE * radius)
  const view = lookAt(eye)
  const zoom = Math.sqrt(EYE_DISTANCE ** 2 - 1)
  const toFlat = (v: Vector): Point => {
    const [x, y, depth] = view(v)
    return [(x / depth) * zoom, (-y / depth) * zoom]
  }
  return puzzle.pieces.flatMap((piece, p) =>
    piece.faces.flatMap((face) => {
      const normal = rotate(state[p], face.normal)
      const corners = face.polygon.map((corner) => rotate(state[p], corner))
      const middle = average(corners)
      if (dot(normal, subtract(eye, middle)) <= 0) return []
      const colour = colourIn(scheme, face.colour)
      const inset = corners.map((c) => add(middle, scale(subtract(c, middle), INSET)))
      const [u, v] = [subtract(corners[1], corners[0]), subtract(corners[3], corners[0])]
      const flatMiddle = toFlat(middle)
      const axis = (d: Vector): Point => {
        const end = toFlat(add(middle, scale(d, 0.5)))
        return [end[0] - flatMiddle[0], end[1] - flatMiddle[1]]
      }
      return [
        {
          piece: piece.id,
          side: directionOfVector(normal).name,
          shade: colour.shade,
          mark: colour.mark,
          edge: corners.map(toFlat),
          inner: inset.map(toFlat),
          middle: flatMiddle,
          axes: [axis(u), axis(v)] as const,
        },
      ]
    }),
  )
}

function lookAt(eye: Vector): (v: Vector) => Vector {
  const back = unit(eye)
  const right = unit(cross([0, 1, 0], back))
  const up = cross(back, right)
  return (v) => {
    const from = subtract(v, eye)
    return [dot(from, right), dot(from, up), -dot(from, back)]
  }
}

const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const scale = (a: Vector, f: number): Vector => [a[0] * f, a[1] * f, a[2] * f]
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
// Square roots are exact everywhere, so the server and the browser draw the same picture.
const length = (a: Vector): number => Math.sqrt(dot(a, a))
const unit = (a: Vector): Vector => scale(a, 1 / length(a))
const average = (all: readonly Vector[]): Vector => scale(all.reduce(add), 1 / all.length)
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]

/** A number of an outline: three decimals, no negative zero. */
const written = (n: number): string => String(Math.round(n * 1000) / 1000 + 0)

/** The outline as an SVG path. */
export const outlinePath = (points: readonly Point[]): string =>
  `M${points.map(([x, y]) => `${written(x)} ${written(y)}`).join('L')}Z`

/** The transformation that lays a mark on a sticker. */
export const markTransform = ({ axes, middle }: FlatSticker): string =>
  `matrix(${[...axes[0], ...axes[1], ...middle].map(written).join(' ')}) scale(0.62)`
