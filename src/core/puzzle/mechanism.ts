/**
 * What a mechanism gives the compiler: parts (each a share of space found at its points), grips,
 * cores. The kinds of mechanism differ here and nowhere else.
 */
import type { HalfSpace } from '../geometry/polyhedron'
import type { Rotation, Vector } from '../rotation'
import { rotate, ROTATION_COUNT, rotationAbout } from '../rotation'

/** A coloured outer face of a piece: outward normal and outline, in cell units at home. */
export interface OuterFace {
  readonly colour: string
  /** Outward; not normalised. */
  readonly normal: Vector
  /** Anticlockwise as seen from outside. Arcs are given by many points. */
  readonly polygon: readonly Vector[]
  /** The ends of straight edges and arcs, where the outline has arcs; else every corner is one. */
  readonly corners?: readonly Vector[]
  /** The circle that bounds it on one side, where there is one. */
  readonly arc?: { readonly centre: Vector; readonly radius: number }
}

/** What can be moved, before gluing and before it is cut out of a solid. */
export interface Part {
  /** Where grips find it. */
  readonly points: readonly Vector[]
  readonly core: number
  /** By place, in face letters: 'UFR'. */
  readonly name: string
  /** What a solver calls it by its place in the mechanism. */
  readonly role: string
  /** Its share of space, unbounded at the outside: for solids of another shape. */
  readonly region: readonly HalfSpace[]
  /** In the mechanism's own shape: outer faces, and dark facets of the body. */
  readonly faces: readonly OuterFace[]
  readonly body: readonly (readonly Vector[])[]
}

/** A slab that can be turned: the pieces with `from <= axis . cell < to`. */
export interface Grip {
  readonly name: string
  readonly core: number
  readonly axis: Vector
  readonly from: number | null
  readonly to: number | null
  readonly unitDegrees: 90 | 120
  /** Amounts in units, clockwise seen from outside along the axis, that the mechanism allows. */
  readonly amounts: readonly number[]
  /** The turn is allowed only while so many cells are in the slab. */
  readonly condition: null | { readonly complete: number }
}

export interface Mechanism {
  /** What the pieces turn about. */
  readonly cores: readonly Vector[]
  readonly parts: readonly Part[]
  readonly grips: readonly Grip[]
  /** A point that is kept still when states are counted. */
  readonly still: Vector
  /** Half-spaces of its own shape, or undefined where that is not convex or not cut by planes. */
  readonly shape?: readonly HalfSpace[]
}

export const isWhole = (grip: Grip): boolean => grip.from === null && grip.to === null

export const inSlab = (grip: Grip, point: Vector): boolean => {
  const height = grip.axis[0] * point[0] + grip.axis[1] * point[1] + grip.axis[2] * point[2]
  return (grip.from === null || grip.from <= height) && (grip.to === null || height < grip.to)
}

/** Rotations that carry the points of all parts, and the given grips, onto themselves. */
export function symmetriesOf(parts: readonly Part[], grips: readonly Grip[]): Set<Rotation> {
  const points = new Set(parts.flatMap((part) => part.points.map((point) => point.join())))
  const slabs = grips.map(({ axis, from, to, amounts, condition }) => ({
    axis,
    rest: [from, to, amounts, condition?.complete].join('|'),
  }))
  const known = new Set(slabs.map(({ axis, rest }) => `${axis.join()}|${rest}`))
  const found = new Set<Rotation>()
  for (let r = 0; r < ROTATION_COUNT; r++) {
    const keepsGrips = slabs.every(({ axis, rest }) =>
      known.has(`${rotate(r, axis).join()}|${rest}`),
    )
    if (
      keepsGrips &&
      parts.every((part) => part.points.every((point) => points.has(rotate(r, point).join())))
    )
      found.add(r)
  }
  return found
}

/** The grip with only those amounts whose turn of the whole puzzle is a symmetry; none if none is. */
export function withAmountsIn(symmetries: ReadonlySet<Rotation>, grip: Grip): Grip[] {
  const amounts = grip.amounts.filter((amount) =>
    symmetries.has(rotationAbout(grip.axis, amount * grip.unitDegrees)),
  )
  return amounts.length > 0 ? [{ ...grip, amounts }] : []
}
