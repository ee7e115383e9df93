import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  IDENTITY,
  INVERSE,
  MATRICES,
  multiply,
  orderOf,
  rotate,
  rotationAbout,
  type Vector,
} from './rotation'

const rotation = fc.nat(23)
const vector = fc.tuple(fc.integer(), fc.integer(), fc.integer()) as fc.Arbitrary<Vector>

describe('the 24 rotations', () => {
  it('are distinct, proper and begin with the identity', () => {
    expect(new Set(MATRICES.map(String)).size).toBe(24)
    expect(MATRICES[IDENTITY]).toEqual([1, 0, 0, 0, 1, 0, 0, 0, 1])
    for (const [a, b, c, d, e, f, g, h, i] of MATRICES)
      expect(a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)).toBe(1)
  })

  it('multiply as they act: b first, then a', () => {
    fc.assert(
      fc.property(rotation, rotation, vector, (a, b, v) => {
        expect(rotate(multiply(a, b), v)).toEqual(rotate(a, rotate(b, v)))
      }),
    )
  })

  it('have inverses and are associative', () => {
    fc.assert(
      fc.property(rotation, rotation, rotation, (a, b, c) => {
        expect(multiply(a, INVERSE[a])).toBe(IDENTITY)
        expect(multiply(INVERSE[a], a)).toBe(IDENTITY)
        expect(multiply(a, multiply(b, c))).toBe(multiply(multiply(a, b), c))
      }),
    )
  })

  it('have the orders of the rotation group of the cube', () => {
    const orders = MATRICES.map((_, r) => orderOf(r))
    const count = (order: number) => orders.filter((each) => each === order).length
    expect([1, 2, 3, 4].map(count)).toEqual([1, 9, 8, 6])
  })

  it('turn clockwise as seen from outside', () => {
    // Seen from the right, a clockwise quarter takes the front to the top.
    expect(rotate(rotationAbout([1, 0, 0], 90), [0, 0, 1])).toEqual([0, 1, 0])
    expect(rotate(rotationAbout([0, 1, 0], 90), [0, 0, 1])).toEqual([-1, 0, 0])
    expect(rotate(rotationAbout([0, 0, 1], 90), [0, 1, 0])).toEqual([1, 0, 0])
    expect(orderOf(rotationAbout([1, 1, 1], 120))).toBe(3)
  })

  it('refuse angles that no rotation of the cube has', () => {
    expect(() => rotationAbout([1, 0, 0], 45)).toThrow(/no rotation/)
    expect(() => rotationAbout([1, 1, 0], 90)).toThrow(/no rotation/)
  })
})
