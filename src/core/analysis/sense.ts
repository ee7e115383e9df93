/** How a turn of a piece in its place looks from outside. */
import { MATRICES, orderOf, type Rotation, type Vector } from '../rotation'
import { dot } from '../geometry/vector'

export interface Sense {
  readonly degrees: 90 | 120 | 180
  /** True for a half turn too, whose sense does not matter. */
  readonly isClockwise: boolean
}

/** A rotation other than the identity, as seen by someone who looks at a piece from `outward`. */
export function senseOf(rotation: Rotation, outward: Vector): Sense {
  const m = MATRICES[rotation]
  const order = orderOf(rotation)
  // The antisymmetric part of the matrix is 2 sin(angle) times the axis, anticlockwise positive.
  const axis: Vector = [m[7] - m[5], m[2] - m[6], m[3] - m[1]]
  const degrees = order === 2 ? 180 : order === 3 ? 120 : 90
  return { degrees, isClockwise: dot(axis, outward) <= 0 }
}

/** The same as a claim has it: of half a turn the sense does not matter. */
export const amountOf = ({
  degrees,
  isClockwise,
}: Sense): { readonly degrees: number; readonly isClockwise?: true } => ({
  degrees,
  ...(isClockwise && degrees !== 180 && { isClockwise }),
})
