/**
 * Convex solids as lists of facets, cut by half-spaces one after another (the method of Sutherland
 * and Hodgman, facet by facet, the cut closed by a new facet).
 *
 * Corners are drawn in floating point, but known exactly: half-spaces have fractions as offsets and whole
 * numbers as normals, so every corner is a fraction too, and whether it lies on a plane is no matter of
 * tolerance (see `exact.ts`).
 */
import type { Vector } from '../rotation'
import {
  exactCrossing,
  exactHeight,
  exactPlane,
  exactPoint,
  nearest,
  type ExactPlane,
  type ExactPoint,
} from './exact'
import { add, average, cross, dot, length, subtract, unit } from './vector'

/** All points p with `normal . p <= at`. */
export interface HalfSpace {
  readonly normal: Vector
  readonly at: number
  /** The colour of the facet that it makes; none for a cut between pieces. */
  readonly colour?: string
}

export interface Facet {
  /** Corners, anticlockwise as seen from outside. */
  readonly polygon: readonly Vector[]
  /** Outward, as the half-space has it. */
  readonly normal: Vector
  readonly colour?: string
}

export type Polyhedron = readonly Facet[]

/** Nearer to a plane than this, whole numbers decide; areas below it are none. */
const DOUBTFUL = 1e-6
const LEAST_AREA = 1e-9

const exactOf = new WeakMap<Vector, ExactPoint>()

/** The corner in whole numbers. */
function exactly(v: Vector): ExactPoint {
  const known = exactOf.get(v) ?? exactPoint(v)
  if (!known) throw new Error(`the point (${v.join(', ')}) is not exact`)
  exactOf.set(v, known)
  return known
}

/** On which side of a plane points lie: 1 outside, 0 on it, -1 inside. */
function sideOf({ normal, at }: HalfSpace): (v: Vector, height: number) => -1 | 0 | 1 {
  let plane: ExactPlane | undefined
  return (v, height) => {
    if (Math.abs(height) > DOUBTFUL) return height > 0 ? 1 : -1
    plane ??= planeOf({ normal, at })
    const exact = exactHeight(plane, exactly(v))
    return exact > 0n ? 1 : exact < 0n ? -1 : 0
  }
}

function planeOf({ normal, at }: HalfSpace): ExactPlane {
  const plane = exactPlane(normal, at)
  if (!plane) throw new Error(`the half-space at ${at} is not exact`)
  return plane
}

/** A cube about the origin, without colours. */
export function bigCube(half: number): Polyhedron {
  return [0, 1, 2].flatMap((axis) =>
    [1, -1].map((sign): Facet => {
      const [u, v] = [(axis + 1) % 3, (axis + 2) % 3]
      const corner = (a: number, b: number): Vector => {
        const point = [0, 0, 0]
        point[axis] = sign * half
        point[u] = a * half
        point[v] = b * half
        return point as unknown as Vector
      }
      const normal = [0, 0, 0]
      normal[axis] = sign
      const polygon = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)]
      return {
        polygon: sign > 0 ? polygon : polygon.reverse(),
        normal: normal as unknown as Vector,
      }
    }),
  )
}

/** What is left of a solid inside a half-space; empty if nothing is. */
export function clip(solid: Polyhedron, half: HalfSpace): Polyhedron {
  const height = (v: Vector) => dot(half.normal, v) - half.at
  const side = sideOf(half)
  const plane = planeOf(half)
  let isCut = false
  const onPlane: Vector[] = []
  const kept: Facet[] = []
  for (const facet of solid) {
    const heights = facet.polygon.map(height)
    const sides = facet.polygon.map((v, i) => side(v, heights[i]))
    if (sides.every((each) => each <= 0)) {
      kept.push(facet)
      facet.polygon.forEach((v, i) => sides[i] === 0 && onPlane.push(v))
      continue
    }
    isCut = true
    const polygon: Vector[] = []
    facet.polygon.forEach((v, i) => {
      const j = (i + 1) % facet.polygon.length
      if (sides[i] <= 0) polygon.push(v)
      if (sides[i] === 0) onPlane.push(v)
      if (sides[i] * sides[j] < 0) {
        // From the inner end in either direction, so that neighbours get the very same point.
        const [a, b] = sides[i] < 0 ? [v, facet.polygon[j]] : [facet.polygon[j], v]
        const exact = exactCrossing(plane, exactly(a), exactly(b))
        const point = nearest(exact)
        exactOf.set(point, exact)
        polygon.push(point)
        onPlane.push(point)
      }
    })
    if (polygon.length >= 3 && areaOf(polygon) > LEAST_AREA) kept.push({ ...facet, polygon })
  }
  if (!isCut) return solid
  const lid = around(distinct(onPlane), half.normal)
  // A solid that only touches the plane from outside is gone.
  if (kept.length < 3 || lid.length < 3) return []
  return [...kept, { polygon: lid, normal: half.normal, colour: half.colour }]
}

export const clipAll = (solid: Polyhedron, halves: readonly HalfSpace[]): Polyhedron =>
  halves.reduce(clip, solid)

const distinct = (points: readonly Vector[]): Vector[] => [
  ...new Map(points.map((point) => [exactly(point).join(), point])).values(),
]

/** Points of one plane in order, anticlockwise about its normal. */
function around(points: readonly Vector[], normal: Vector): Vector[] {
  if (points.length < 3) return []
  const middle = average(points)
  const u = unit(subtract(points[0], middle))
  const v = cross(unit(normal), u)
  const angle = (p: Vector) => Math.atan2(dot(subtract(p, middle), v), dot(subtract(p, middle), u))
  return [...points].sort((a, b) => angle(a) - angle(b))
}

/** The area of a flat outline, in square units; also of outlines that are not convex. */
export const areaOf = (polygon: readonly Vector[]): number => length(areaVector(polygon)) / 2

/** Twice the area, along the outline's own normal (Newell). */
export function areaVector(polygon: readonly Vector[]): Vector {
  let sum: Vector = [0, 0, 0]
  polygon.forEach((v, i) => (sum = add(sum, cross(v, polygon[(i + 1) % polygon.length]))))
  return sum
}

/** In cubic units. */
export const volumeOf = (solid: Polyhedron): number =>
  solid.reduce((sum, { polygon }) => sum + dot(polygon[0], areaVector(polygon)), 0) / 6
