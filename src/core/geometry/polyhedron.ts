/**
 * Convex solids as lists of facets, cut by half-spaces one after another (the method of Sutherland
 * and Hodgman, facet by facet, the cut closed by a new facet).
 *
 * Floating point suffices here. Half-spaces have whole numbers as normals, none above 60, and offsets
 * with denominators of at most 12 (the schema sees to both), so every vertex is a quotient of
 * determinants with a denominator of at most 6 x 60^3, and a vertex that does not lie on a plane is
 * at least 1 / (12 x 12 x 6 x 60^3), about 5e-9, away from it in units of the normal; sums of
 * a few products of doubles are exact to about 1e-12. TOLERANCE lies between the two.
 */
import type { Vector } from '../rotation'
import { add, average, cross, dot, length, scale, subtract, unit } from './vector'

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

export const TOLERANCE = 1e-9

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
  let isCut = false
  const onPlane: Vector[] = []
  const kept: Facet[] = []
  for (const facet of solid) {
    const heights = facet.polygon.map(height)
    if (heights.every((h) => h <= TOLERANCE)) {
      kept.push(facet)
      facet.polygon.forEach((v, i) => heights[i] >= -TOLERANCE && onPlane.push(v))
      continue
    }
    isCut = true
    const polygon: Vector[] = []
    facet.polygon.forEach((v, i) => {
      const j = (i + 1) % facet.polygon.length
      const [here, there] = [heights[i], heights[j]]
      if (here <= TOLERANCE) polygon.push(v)
      if (Math.abs(here) <= TOLERANCE) onPlane.push(v)
      if ((here < -TOLERANCE && there > TOLERANCE) || (here > TOLERANCE && there < -TOLERANCE)) {
        // From the inner end in either direction, so that neighbours get the very same point.
        const [a, b, ha, hb] =
          here < 0 ? [v, facet.polygon[j], here, there] : [facet.polygon[j], v, there, here]
        const point = add(a, scale(subtract(b, a), ha / (ha - hb)))
        polygon.push(point)
        onPlane.push(point)
      }
    })
    if (polygon.length >= 3 && areaOf(polygon) > TOLERANCE) kept.push({ ...facet, polygon })
  }
  if (!isCut) return solid
  const lid = around(distinct(onPlane), half.normal)
  // A solid that only touches the plane from outside is gone.
  if (kept.length < 3 || lid.length < 3) return []
  return [...kept, { polygon: lid, normal: half.normal, colour: half.colour }]
}

export const clipAll = (solid: Polyhedron, halves: readonly HalfSpace[]): Polyhedron =>
  halves.reduce(clip, solid)

function distinct(points: readonly Vector[]): Vector[] {
  const found: Vector[] = []
  for (const point of points)
    if (!found.some((other) => length(subtract(point, other)) < 1e-7)) found.push(point)
  return found
}

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
