/** A state drawn flat: the facets that an eye sees, farthest first. */
import { areaVector } from '@/core/geometry/polyhedron'
import { roomIn, stickerOutline } from '@/core/geometry/outline'
import { add, average, cross, dot, scale, subtract, unit } from '@/core/geometry/vector'
import { colourIn, type Mark, type Scheme } from '@/core/puzzle/colours'
import { placed, type Piece, type Puzzle } from '@/core/puzzle/compile'
import { cutWidth } from '@/core/puzzle/cutWidth'
import { drawnFaces } from '@/core/puzzle/drawnFaces'
import { poseOf, posed } from '@/core/puzzle/view'
import { type Vector } from '@/core/rotation'
import type { State } from '@/core/state'
import { eyeOf, type WindowName } from '../camera'

type Point = readonly [number, number]

export interface FlatSticker {
  readonly shade: string
  readonly mark: Mark
  readonly outline: readonly Point[]
  /** For the mark: the middle, and the images of two directions of the face. */
  readonly middle: Point
  readonly axes: readonly [Point, Point]
}

export interface FlatFacet {
  readonly piece: number
  /** The whole outline. */
  readonly outline: readonly Point[]
  /** Which outer face of the piece it is, as they are drawn, with its coloured part; undefined for dark facets. */
  readonly face?: number
  readonly sticker?: FlatSticker
}

/** Distance of the eye in radii of the sphere around the puzzle. */
const EYE_DISTANCE = 3.4

/**
 * In a square from -1 to 1, y down; the sphere around the puzzle just fits. With `alone` a single piece
 * is drawn, with the facets that others would hide.
 */
export function project(
  puzzle: Puzzle,
  state: State,
  scheme: Scheme,
  name: WindowName,
  alone?: number,
): FlatFacet[] {
  const { eye, toFlat } = flatView(puzzle, name)
  const pose = poseOf(puzzle.definition)
  const cut = cutWidth(puzzle)
  const drawn: { facet: FlatFacet; distance: number }[] = []
  const seen = alone === undefined ? seenFacets(puzzle, state) : undefined
  puzzle.pieces.forEach((piece, p) => {
    if (alone !== undefined && p !== alone) return
    const move = (v: Vector): Vector =>
      posed(pose, subtract(placed(puzzle.cores[piece.core], state[p], v), puzzle.middle))
    const draw = (polygon: readonly Vector[], face?: number) => {
      const corners = polygon.map(move)
      const middle = average(corners)
      const toEye = subtract(eye, middle)
      const normal = areaVector(corners)
      if (dot(normal, toEye) <= 1e-9) return
      const facet: FlatFacet = { piece: p, outline: corners.map(toFlat) }
      const distance = Math.sqrt(dot(toEye, toEye))
      if (face === undefined) drawn.push({ facet, distance })
      else {
        const { colour } = drawnFaces(piece)[face]
        const { shade, mark } = colourIn(scheme, colour)
        const { room, roomiest, inner } = laidOut(polygon, cut, move)
        const across = unit(
          cross(
            Math.abs(normal[1]) < 0.9 * Math.sqrt(dot(normal, normal)) ? [0, 1, 0] : [0, 0, -1],
            normal,
          ),
        )
        const upward = unit(cross(normal, across))
        const flatMiddle = toFlat(roomiest)
        const axis = (d: Vector): Point => {
          const end = toFlat(add(roomiest, scale(d, room)))
          return [end[0] - flatMiddle[0], end[1] - flatMiddle[1]]
        }
        const sticker: FlatSticker = {
          shade,
          mark,
          outline: inner.map(toFlat),
          middle: flatMiddle,
          axes: [axis(across), axis(scale(upward, -1))],
        }
        drawn.push({ facet: { ...facet, face, sticker }, distance: distance - 1e-3 })
      }
    }
    drawnFaces(piece).forEach(({ polygon }, f) => draw(polygon, f))
    for (const facet of seen ? seen[p] : bareFacets(piece)) draw(facet)
  })
  return drawn.sort((a, b) => b.distance - a.distance).map(({ facet }) => facet)
}

/** The room for a mark on a face and the outline of its sticker: worked out once, then moved along with the piece. */
function laidOut(polygon: readonly Vector[], cut: number, move: (v: Vector) => Vector) {
  let known = LAID_OUT.get(polygon)
  if (!known) {
    const normal = areaVector(polygon)
    known = { ...roomIn(polygon, normal), sticker: stickerOutline(polygon, normal, cut) }
    LAID_OUT.set(polygon, known)
  }
  return {
    room: known.radius,
    roomiest: move(known.middle),
    inner: known.sticker.map(move),
  }
}

const LAID_OUT = new WeakMap<
  readonly Vector[],
  ReturnType<typeof roomIn> & { readonly sticker: readonly Vector[] }
>()

/** Where the eye is, in the picture's axes, and where it sees a point of them. */
function flatView(puzzle: Puzzle, name: WindowName) {
  const eye = scale(unit(eyeOf(name, puzzle.definition)), EYE_DISTANCE * puzzle.radius)
  const view = lookAt(eye)
  const zoom = Math.sqrt(EYE_DISTANCE ** 2 - 1)
  const toFlat = (v: Vector): Point => {
    const [x, y, depth] = view(v)
    return [(x / depth) * zoom, (-y / depth) * zoom]
  }
  return { eye, toFlat }
}

/** The same eye in the puzzle's own axes, to draw over the picture. */
export function flatEye(
  puzzle: Puzzle,
  name: WindowName,
): { from: Vector; flat: (v: Vector) => Point } {
  const { eye, toFlat } = flatView(puzzle, name)
  const pose = poseOf(puzzle.definition)
  const [a, b, c] = pose
  const back = (v: Vector): Vector =>
    [0, 1, 2].map((i) => a[i] * v[0] + b[i] * v[1] + c[i] * v[2]) as unknown as Vector
  return {
    from: add(back(eye), puzzle.middle),
    flat: (v) => toFlat(posed(pose, subtract(v, puzzle.middle))),
  }
}

/** The dark facets of a piece. */
function bareFacets({ body, faces }: Piece): (readonly Vector[])[] {
  const key = (polygon: readonly Vector[]) =>
    average(polygon)
      .map((c) => Math.round(c * 1e4))
      .join()
  const coloured = new Set(faces.map(({ polygon }) => key(polygon)))
  return body.filter((facet) => !coloured.has(key(facet)))
}

/**
 * Dark facets that can be seen: not those under a coloured face, nor those that lie against a facet
 * of a neighbour.
 */
function seenFacets(puzzle: Puzzle, state: State): (readonly Vector[])[][] {
  const key = (v: Vector) => v.map((c) => Math.round(c * 1e4)).join()
  const count = new Map<string, number>()
  const keyed = puzzle.pieces.map(({ body, core }, p) =>
    body.map((facet) => {
      const at = key(placed(puzzle.cores[core], state[p], average(facet)))
      count.set(at, (count.get(at) ?? 0) + 1)
      return { facet, at }
    }),
  )
  return keyed.map((facets, p) => {
    const under = new Set(
      puzzle.pieces[p].faces.map(({ polygon }) =>
        key(placed(puzzle.cores[puzzle.pieces[p].core], state[p], average(polygon))),
      ),
    )
    return facets
      .filter(({ at }) => count.get(at) === 1 && !under.has(at))
      .map(({ facet }) => facet)
  })
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

/** A number of an outline: three decimals, no negative zero. */
const written = (n: number): string => String(Math.round(n * 1000) / 1000 + 0)

/** The outline as an SVG path. */
export const outlinePath = (points: readonly Point[]): string =>
  `M${points.map(([x, y]) => `${written(x)} ${written(y)}`).join('L')}Z`

/** The transformation that lays a mark on a sticker. */
export const markTransform = ({ axes, middle }: FlatSticker): string =>
  `matrix(${[...axes[0], ...axes[1], ...middle].map(written).join(' ')}) scale(0.66)`
