import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyBox, cube2, cube3, stateOf } from '@/core/testing'
import { start } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { markTransform, outlinePath, project } from './project'

describe('the flat pair of windows', () => {
  it('shows every sticker of a box exactly once, in one window or the other', () => {
    fc.assert(
      fc.property(anyBox, (puzzle) => {
        const both = WINDOW_NAMES.flatMap((name) =>
          project(puzzle, start(puzzle), puzzle.definition.colours, name),
        )
        const total = puzzle.pieces.reduce((sum, { faces }) => sum + faces.length, 0)
        expect(both).toHaveLength(total)
        expect(new Set(both.map(({ piece, side }) => `${piece}:${side}`)).size).toBe(total)
      }),
      { numRuns: 20 },
    )
  })

  it('stays inside its square, whatever the state', () => {
    fc.assert(
      fc.property(stateOf(cube3), (state) => {
        for (const name of WINDOW_NAMES)
          for (const { edge, inner } of project(cube3, state, cube3.definition.colours, name))
            for (const [x, y] of [...edge, ...inner])
              expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThanOrEqual(1.0001)
      }),
      { numRuns: 20 },
    )
  })

  it('shows front, right and top near, and the others far', () => {
    const sides = (name: 'near' | 'far') =>
      new Set(project(cube2, start(cube2), cube2.definition.colours, name).map(({ side }) => side))
    expect(sides('near')).toEqual(new Set(['up', 'front', 'right']))
    expect(sides('far')).toEqual(new Set(['down', 'back', 'left']))
  })

  it('is written with short plain numbers, the same on every machine', () => {
    for (const name of WINDOW_NAMES)
      for (const sticker of project(cube2, start(cube2), cube2.definition.colours, name)) {
        const text = `${outlinePath(sticker.edge)} ${markTransform(sticker)}`
        expect(text).not.toMatch(/NaN|e-|-0[ ,LZ)]/)
        expect(text).not.toMatch(/\.\d{4,}/)
      }
  })
})
