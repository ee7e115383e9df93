import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { rotate, ROTATION_COUNT, type Vector } from '../rotation'
import { closeRotations } from './compile'
import { lineOf, unreachedGrip, type Turnable } from './frameReached'
import type { Grip } from './mechanism'

const CORNERS: readonly Vector[] = [1, -1].flatMap((x) =>
  [1, -1].flatMap((y) => [1, -1].map((z): Vector => [x, y, z])),
)

/** A cube that turns about its corners, cut at a distance from the core. */
const aboutCorners = (from: number, axes: readonly Vector[], still: Vector): Turnable => ({
  pieces: [
    ...CORNERS,
    ...[1, -1].flatMap((s): Vector[] => [
      [s, 0, 0],
      [0, s, 0],
      [0, 0, s],
    ]),
  ].map((cell) => ({ core: 0, cells: [cell] })),
  grips: axes.map((axis): Grip => ({
    ...{ name: axis.join(), core: 0, axis, from, to: null, unitDegrees: 120 },
    ...{ amounts: [1, 2], condition: null },
  })),
  holds: closeRotations([...Array(ROTATION_COUNT).keys()]),
  still,
})

describe('the frame by which states are counted', () => {
  it('is reached by the turns of every puzzle that is shipped', () => {
    for (const id of CATALOG_IDS) expect(unreachedGrip(must(puzzleById(id))), id).toBeUndefined()
  })

  it('is not reached where a cut goes through the core and nothing turns on its far side', () => {
    const opposite: Vector = [-1, -1, -1]
    // Cut outside the core, or with the other half turning too, all is well.
    expect(unreachedGrip(aboutCorners(1.5, CORNERS, [0, 0, 0]))).toBeUndefined()
    expect(unreachedGrip(aboutCorners(0.5, CORNERS, opposite))).toBeUndefined()
    // Half of the axes, each half turned from one side only: the corner that is kept still is moved by one of them.
    const half = CORNERS.filter(([x, y, z]) => x * y * z < 0)
    expect(unreachedGrip(aboutCorners(0.5, half, opposite))).toBe('-1,-1,-1')
    // The cut lies in the core itself, which every turn then moves.
    expect(unreachedGrip(aboutCorners(0, half, [0, 0, 0]))).toBeDefined()
  })
})

describe('the line of an axis', () => {
  it('is the same for both ways along it, and for no other', () => {
    const axis = fc.tuple(
      fc.integer({ min: -2, max: 2 }),
      fc.integer({ min: -2, max: 2 }),
      fc.integer({ min: -2, max: 2 }),
    )
    fc.assert(
      fc.property(axis, axis, (a, b) => {
        const isSame = [1, -1].some((s) => a.every((c, i) => c === s * b[i]))
        expect(lineOf(a) === lineOf(b)).toBe(isSame)
      }),
    )
    const lines = new Set(CORNERS.map(lineOf))
    expect(lines.size).toBe(4)
    expect(
      new Set([...Array(ROTATION_COUNT).keys()].map((r) => lineOf(rotate(r, [1, 0, 0])))).size,
    ).toBe(3)
  })
})
