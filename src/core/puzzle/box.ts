/** Layered boxes: their cells, outer faces and grips. */
import type { Vector } from '../rotation'
import type { PuzzleDefinition } from './definition'
import { DIRECTIONS, type Direction } from './directions'

/** A coloured outer face of a piece: outward normal and outline, in cell units at home. */
export interface OuterFace {
  readonly colour: string
  readonly normal: Vector
  readonly polygon: readonly Vector[]
}

/** A slab that can be turned: the pieces with `from <= axis . cell < to`. */
export interface Grip {
  readonly name: string
  readonly core: number
  readonly axis: Vector
  readonly from: number | null
  readonly to: number | null
  readonly unitDegrees: 90 | 120
  /** Amounts in units, clockwise seen from outside along the axis, that the outline allows. */
  readonly amounts: readonly number[]
  readonly condition: null | { readonly complete: number }
}

export const isWhole = (grip: Grip): boolean => grip.from === null && grip.to === null

/** Centres of the cells that have at least one outer face, by x, then y, then z. */
export function boxCells({ mechanism }: PuzzleDefinition): Vector[] {
  const along = (n: number) => Array.from({ length: n }, (_, i) => i - (n - 1) / 2)
  const [xs, ys, zs] = mechanism.size.map(along)
  const all = xs.flatMap((x) => ys.flatMap((y) => zs.map((z): Vector => [x, y, z])))
  return all.filter((cell) => DIRECTIONS.some((direction) => isOuter(cell, direction, mechanism)))
}

function isOuter(cell: Vector, { vector }: Direction, mechanism: { size: Vector }): boolean {
  return [0, 1, 2].some(
    (axis) => vector[axis] * cell[axis] === (mechanism.size[axis] - 1) / 2 && vector[axis] !== 0,
  )
}

/** The outer faces of one cell: unit squares, corners in order around the normal. */
export function boxFaces(definition: PuzzleDefinition, cell: Vector): OuterFace[] {
  return DIRECTIONS.filter((direction) => isOuter(cell, direction, definition.mechanism)).map(
    ({ vector: normal, name }) => {
      const axis = normal.findIndex((c) => c !== 0)
      const u = (axis + 1) % 3
      const v = (axis + 2) % 3
      const corners = [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ]
      // Anticlockwise seen from outside, so that the outline's own normal points outward.
      if (normal[axis] < 0) corners.reverse()
      const polygon = corners.map(([a, b]): Vector => {
        const point = cell.map((c, i) => c + normal[i] / 2)
        point[u] += a / 2
        point[v] += b / 2
        return point as unknown as Vector
      })
      return { colour: definition.faces[name], normal, polygon }
    },
  )
}

/** Every slab and every name it may be written with in canonical notation. */
export function boxGrips({ mechanism }: PuzzleDefinition): Grip[] {
  return [
    ...DIRECTIONS.flatMap((direction) => layerGrips(mechanism.size, direction)),
    ...MIDDLES.flatMap(([name, like]) => middleGrip(mechanism.size, name, like)),
    ...WHOLES.map(([name, like]) => slab(mechanism.size, name, like, null, null)),
  ]
}

/** Middle slices turn like the face named beside them; whole-puzzle rotations likewise. */
const MIDDLES = [
  ['M', 'L'],
  ['E', 'D'],
  ['S', 'F'],
] as const
const WHOLES = [
  ['x', 'R'],
  ['y', 'U'],
  ['z', 'F'],
] as const

function layerGrips(size: Vector, direction: Direction): Grip[] {
  const n = size[axisOf(direction)]
  const grips: Grip[] = []
  for (let first = 1; first <= n; first++)
    for (let last = first; last <= n; last++) {
      if (first === 1 && last === n) continue
      const range = first === last ? (first === 1 ? '' : `${first}`) : `${first}-${last}`
      const from = last === n ? null : n / 2 - last
      const to = first === 1 ? null : n / 2 - first + 1
      grips.push(slab(size, range + direction.letter, direction.letter, from, to))
    }
  return grips
}

function middleGrip(size: Vector, name: string, like: string): Grip[] {
  const direction = DIRECTIONS.find(({ letter }) => letter === like) as Direction
  const n = size[axisOf(direction)]
  return n % 2 === 1 && n > 1 ? [slab(size, name, like, -0.5, 0.5)] : []
}

function slab(
  size: Vector,
  name: string,
  like: string,
  from: number | null,
  to: number | null,
): Grip {
  const direction = DIRECTIONS.find(({ letter }) => letter === like) as Direction
  const axis = axisOf(direction)
  const square = size[(axis + 1) % 3] === size[(axis + 2) % 3]
  return {
    name,
    core: 0,
    axis: direction.vector,
    from,
    to,
    unitDegrees: 90,
    amounts: square ? [1, 2, 3] : [2],
    condition: null,
  }
}

const axisOf = ({ vector }: Direction): number => vector.findIndex((c) => c !== 0)
