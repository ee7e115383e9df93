import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compile } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import type { Vector } from '../rotation'
import {
  exactCrossing,
  exactHeight,
  exactPlane,
  exactPoint,
  fractionOf,
  type ExactPlane,
  type ExactPoint,
} from './exact'
import { bigCube, clip, clipAll, volumeOf, type HalfSpace } from './polyhedron'

const thousandths = (most: number) =>
  fc.integer({ min: -1000 * most, max: 1000 * most }).map((n) => n / 1000)
const whole = fc.integer({ min: -9, max: 9 })
const normals = fc
  .tuple(whole, whole, whole)
  .filter((v) => v.some((c) => c !== 0)) as fc.Arbitrary<Vector>
const points = fc.tuple(thousandths(5), thousandths(5), thousandths(5)) as fc.Arbitrary<Vector>
const halves: fc.Arbitrary<HalfSpace> = fc.record({
  normal: normals,
  at: fc.integer({ min: 250, max: 9000 }).map((n) => n / 1000),
})

describe('fractions', () => {
  it('are found for every decimal of three places and every quotient, and for nothing finer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60_000 }),
        fc.integer({ min: 1, max: 1000 }),
        (a, b) => {
          const [top, bottom] = fractionOf(a / b) ?? [0, 0]
          expect(top * b).toBe(a * bottom)
        },
      ),
    )
    for (const fine of [1.2345, 0.33333, Math.SQRT2, Math.PI])
      expect(fractionOf(fine)).toBeUndefined()
  })
})

describe('exact points', () => {
  it('lie on the plane that they cross, between the two that they come from', () => {
    fc.assert(
      fc.property(points, points, normals, thousandths(9), (a, b, normal, at) => {
        const plane = exactPlane(normal, at) as ExactPlane
        const [p, q] = [exactPoint(a) as ExactPoint, exactPoint(b) as ExactPoint]
        if (exactHeight(plane, p) >= 0n || exactHeight(plane, q) <= 0n) return
        const crossing = exactCrossing(plane, p, q)
        expect(exactHeight(plane, crossing)).toBe(0n)
        expect(crossing[3] > 0n).toBe(true)
        const between = (i: number) => {
          const [x, low, high] = [crossing, p, q].map((each) => Number(each[i]) / Number(each[3]))
          return x >= Math.min(low, high) - 1e-9 && x <= Math.max(low, high) + 1e-9
        }
        expect([0, 1, 2].every(between)).toBe(true)
      }),
    )
  })
})

describe('a solid', () => {
  it('is cut in two without loss, wherever the planes meet', () => {
    fc.assert(
      fc.property(fc.array(halves, { minLength: 1, maxLength: 8 }), halves, (sides, cut) => {
        const solid = clipAll(bigCube(5), sides)
        const inside = volumeOf(clip(solid, cut))
        const outside = volumeOf(
          clip(solid, { normal: cut.normal.map((c) => -c + 0) as unknown as Vector, at: -cut.at }),
        )
        expect(inside + outside).toBeCloseTo(volumeOf(solid), 7)
      }),
    )
  })

  it('is not cut by a plane that only touches a corner, an edge or a side', () => {
    fc.assert(
      fc.property(fc.integer({ min: 251, max: 4999 }), normals, (n, normal) => {
        const half = n / 1000
        const box = bigCube(half)
        // The corner farthest along the normal, in thousandths.
        const at = (n * normal.reduce((sum, c) => sum + Math.abs(c), 0)) / 1000
        expect(clip(box, { normal, at })).toBe(box)
      }),
    )
  })
})

describe('a puzzle file', () => {
  const solidAt = (at: unknown) => ({
    schema: 1,
    id: 'own',
    name: 'own',
    mechanism: { kind: 'box', size: [3, 3, 3] },
    solid: {
      halfSpaces: [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ].map((normal, i) => ({
        normal,
        at,
        colour: ['red', 'orange', 'white', 'yellow', 'green', 'blue'][i],
      })),
    },
  })

  it('takes offsets with three places and fractions as they are', () => {
    for (const [at, value] of [
      [1.377, 1.377],
      ['7/5', 1.4],
      ['11/7', 11 / 7],
      [1.5, 1.5],
    ] as const) {
      const puzzle = compile(must(readDefinition(solidAt(at))))
      expect(puzzle.pieces).toHaveLength(26)
      const corners = puzzle.pieces.flatMap(({ faces }) => faces.flatMap(({ polygon }) => polygon))
      expect(Math.max(...corners.flat())).toBeCloseTo(value, 12)
      // As it is stored it can be read again.
      expect(readDefinition(JSON.parse(JSON.stringify(puzzle.definition))).ok).toBe(true)
    }
  })

  it('says what is wrong with an offset, and where', () => {
    for (const at of [1.2345, '1/0', 'wide', '7/', null]) {
      const read = readDefinition(solidAt(at))
      expect(read.ok ? '' : read.problem.field, String(at)).toMatch(/^solid\.halfSpaces\[0\]\.at$/)
    }
  })
})
