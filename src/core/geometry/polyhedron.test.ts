import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Vector } from '../rotation'
import { areaOf, areaVector, bigCube, clip, clipAll, volumeOf, type HalfSpace } from './polyhedron'
import { add, dot, length, scale } from './vector'

const whole = (most: number) => fc.integer({ min: -most, max: most })

const anyHalfSpace: fc.Arbitrary<HalfSpace> = fc
  .tuple(fc.tuple(whole(6), whole(6), whole(6)), fc.integer({ min: -24, max: 24 }))
  .filter(([normal]) => normal.some((c) => c !== 0))
  .map(([normal, twelfths]) => ({ normal, at: twelfths / 12, colour: 'red' }))

const cube = bigCube(1)

describe('a convex solid', () => {
  it('is a cube of the right volume and area to begin with', () => {
    expect(volumeOf(bigCube(1.5))).toBeCloseTo(27, 9)
    expect(cube.reduce((sum, { polygon }) => sum + areaOf(polygon), 0)).toBeCloseTo(24, 9)
  })

  it('stays closed, convex and inside every half-space that it is cut by', () => {
    fc.assert(
      fc.property(fc.array(anyHalfSpace, { maxLength: 6 }), (halves) => {
        const solid = clipAll(cube, halves)
        // The areas of a closed surface cancel out.
        const sum = solid.reduce<Vector>(
          (total, { polygon }) => add(total, areaVector(polygon)),
          [0, 0, 0],
        )
        expect(length(sum)).toBeLessThan(1e-6)
        const corners = solid.flatMap(({ polygon }) => polygon)
        for (const { normal, at } of halves)
          for (const corner of corners) expect(dot(normal, corner)).toBeLessThanOrEqual(at + 1e-6)
        for (const { polygon, normal } of solid) {
          const at = dot(normal, polygon[0])
          for (const corner of corners) expect(dot(normal, corner)).toBeLessThanOrEqual(at + 1e-6)
        }
      }),
      { numRuns: 200 },
    )
  })

  it('is cut in two parts that together are the whole', () => {
    fc.assert(
      fc.property(fc.array(anyHalfSpace, { maxLength: 3 }), anyHalfSpace, (before, half) => {
        const solid = clipAll(cube, before)
        const other = { normal: scale(half.normal, -1), at: -half.at }
        const parts = volumeOf(clip(solid, half)) + volumeOf(clip(solid, other))
        expect(parts).toBeCloseTo(volumeOf(solid), 6)
      }),
      { numRuns: 200 },
    )
  })

  it('does not depend on the order of the cuts, and a second cut by the same changes nothing', () => {
    fc.assert(
      fc.property(fc.array(anyHalfSpace, { minLength: 1, maxLength: 5 }), (halves) => {
        const once = clipAll(cube, halves)
        expect(volumeOf(clipAll(cube, [...halves].reverse()))).toBeCloseTo(volumeOf(once), 6)
        expect(volumeOf(clipAll(once, halves))).toBeCloseTo(volumeOf(once), 6)
      }),
      { numRuns: 150 },
    )
  })

  it('has facets whose outlines go round as their normals say', () => {
    fc.assert(
      fc.property(fc.array(anyHalfSpace, { maxLength: 5 }), (halves) => {
        for (const { polygon, normal } of clipAll(cube, halves)) {
          const around = areaVector(polygon)
          expect(dot(around, normal)).toBeCloseTo(length(around) * length(normal), 5)
        }
      }),
      { numRuns: 150 },
    )
  })

  it('gives the colour of a cut to the facet that the cut makes, and to no other', () => {
    const cut = clip(cube, { normal: [1, 1, 1], at: 2, colour: 'red' })
    const red = cut.filter(({ colour }) => colour === 'red')
    expect(red).toHaveLength(1)
    expect(red[0].polygon).toHaveLength(3)
    expect(cut).toHaveLength(7)
  })

  it('is gone where nothing is left, and the same where nothing is cut', () => {
    expect(clip(cube, { normal: [1, 0, 0], at: -2 })).toEqual([])
    expect(clip(cube, { normal: [1, 0, 0], at: -1 })).toEqual([])
    expect(clip(cube, { normal: [1, 0, 0], at: 1 })).toBe(cube)
  })
})
