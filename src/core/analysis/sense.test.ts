import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rotationAbout, type Vector } from '../rotation'
import { senseOf } from './sense'

const axes = fc.constantFrom<readonly [Vector, number]>(
  [[1, 0, 0], 90],
  [[0, -1, 0], 90],
  [[0, 0, 1], 90],
  [[1, 1, 1], 120],
  [[-1, 1, 1], 120],
  [[1, -1, -1], 120],
)

describe('the sense of a turn in place', () => {
  it('is clockwise, as seen from outside, for turns that are made clockwise', () => {
    fc.assert(
      fc.property(axes, ([axis, degrees]) => {
        expect(senseOf(rotationAbout(axis, degrees), axis)).toEqual({ degrees, isClockwise: true })
        const back = rotationAbout(axis, 360 - degrees)
        expect(senseOf(back, axis)).toEqual({ degrees, isClockwise: false })
        // From behind it is the other way round.
        const behind = axis.map((c) => -c) as unknown as Vector
        expect(senseOf(back, behind)).toEqual({ degrees, isClockwise: true })
      }),
    )
  })

  it('is neither for half a turn', () => {
    expect(senseOf(rotationAbout([1, 1, 0], 180), [1, 1, 0]).degrees).toBe(180)
  })
})
