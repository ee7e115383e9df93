/** Small vector arithmetic, shared by everything that measures or draws. */
import type { Vector } from '../rotation'

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
export const scale = (a: Vector, f: number): Vector => [a[0] * f, a[1] * f, a[2] * f]
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
// Square roots are exact everywhere, so the server and the browser compute the same picture.
export const length = (a: Vector): number => Math.sqrt(dot(a, a))
export const unit = (a: Vector): Vector => scale(a, 1 / length(a))
export const average = (all: readonly Vector[]): Vector => scale(all.reduce(add), 1 / all.length)

export const same = (a: Vector, b: Vector, tolerance = 0): boolean =>
  Math.abs(a[0] - b[0]) <= tolerance &&
  Math.abs(a[1] - b[1]) <= tolerance &&
  Math.abs(a[2] - b[2]) <= tolerance
