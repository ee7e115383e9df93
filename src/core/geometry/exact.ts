/**
 * Exact points: homogeneous whole numbers. Which side of a plane a point lies on is decided in floating point
 * where that is plain, and in whole numbers where it is not.
 */
import type { Vector } from '../rotation'

/** x, y, z over w, in lowest terms; w is above 0. */
export type ExactPoint = readonly [bigint, bigint, bigint, bigint]

/** Largest denominator of an offset. */
export const MOST_PARTS = 1000

/** A number as a fraction with a denominator of at most `MOST_PARTS`; undefined if it is none. */
export function fractionOf(value: number): readonly [number, number] | undefined {
  for (let parts = 1; parts <= MOST_PARTS; parts++) {
    const share = value * parts
    if (Math.abs(share - Math.round(share)) <= 1e-11 * Math.max(1, Math.abs(share)))
      return [Math.round(share), parts]
  }
  return undefined
}

function gcd(a: bigint, b: bigint): bigint {
  while (b !== 0n) [a, b] = [b, a % b]
  return a < 0n ? -a : a
}

function inLowestTerms([x, y, z, w]: ExactPoint): ExactPoint {
  const common = gcd(gcd(gcd(x, y), z), w) * (w < 0n ? -1n : 1n)
  return [x / common, y / common, z / common, w / common]
}

/** A point whose coordinates are fractions; undefined if they are none. */
export function exactPoint(v: Vector): ExactPoint | undefined {
  const parts = v.map(fractionOf)
  if (parts.some((each) => each === undefined)) return undefined
  const [[a, p], [b, q], [c, r]] = parts as (readonly [number, number])[]
  const big = BigInt
  return inLowestTerms([big(a * q * r), big(b * p * r), big(c * p * q), big(p * q * r)])
}

/** A plane `normal . p = at`, with whole numbers throughout: `normal` times the denominator of `at`. */
export type ExactPlane = readonly [bigint, bigint, bigint, bigint]

export function exactPlane(normal: Vector, at: number): ExactPlane | undefined {
  const offset = fractionOf(at)
  const entries = normal.map(fractionOf)
  if (!offset || entries.some((each) => each === undefined)) return undefined
  const [[a, p], [b, q], [c, r]] = entries as (readonly [number, number])[]
  const [top, bottom] = offset
  const all = p * q * r
  return [
    BigInt(a * q * r * bottom),
    BigInt(b * p * r * bottom),
    BigInt(c * p * q * bottom),
    BigInt(top) * BigInt(all),
  ]
}

/** Above 0 outside the plane, 0 on it, below 0 inside; times a number above 0. */
export const exactHeight = ([a, b, c, d]: ExactPlane, [x, y, z, w]: ExactPoint): bigint =>
  a * x + b * y + c * z - d * w

/** Where the line through two points, one on either side of a plane, crosses it. */
export function exactCrossing(plane: ExactPlane, p: ExactPoint, q: ExactPoint): ExactPoint {
  // Heights are times w: (p hq - q hp) with homogeneous entries lies on the plane.
  const [hp, hq] = [exactHeight(plane, p), exactHeight(plane, q)]
  const at = (i: number) => p[i] * hq - q[i] * hp
  return inLowestTerms([at(0), at(1), at(2), at(3)])
}

/** The point as it is drawn. */
export function nearest(point: ExactPoint): Vector {
  const [x, y, z, w] = point.map(Number)
  return [x / w, y / w, z / w]
}
