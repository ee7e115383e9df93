import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import { directionOfVector } from '@/core/puzzle/directions'
import { must } from '@/core/result'
import { start } from '@/core/state'
import { anyBox, cube2, cube3, stateOf } from '@/core/testing'
import { WINDOW_NAMES } from '../camera'
import { markTransform, outlinePath, project } from './project'

describe('the flat pair of windows', () => {
  it.each(CATALOG_IDS)('shows every face of %s, each in one window or the other', (id) => {
    const puzzle = must(puzzleById(id))
    const both = WINDOW_NAMES.flatMap((name) =>
      project(puzzle, start(puzzle), puzzle.definition.colours, name).filter(
        ({ sticker }) => sticker,
      ),
    )
    const total = puzzle.pieces.reduce((sum, { faces }) => sum + faces.length, 0)
    expect(new Set(both.map(({ piece, face }) => `${piece}:${face}`)).size).toBe(total)
    expect(both).toHaveLength(total)
  })

  it('shows every sticker of any box exactly once', () => {
    fc.assert(
      fc.property(anyBox, (puzzle) => {
        const both = WINDOW_NAMES.flatMap((name) =>
          project(puzzle, start(puzzle), puzzle.definition.colours, name).filter(
            ({ sticker }) => sticker,
          ),
        )
        const total = puzzle.pieces.reduce((sum, { faces }) => sum + faces.length, 0)
        expect(both).toHaveLength(total)
      }),
      { numRuns: 20 },
    )
  })

  it('stays inside its square, whatever the state', () => {
    fc.assert(
      fc.property(stateOf(cube3), (state) => {
        for (const name of WINDOW_NAMES)
          for (const { outline, sticker } of project(cube3, state, cube3.definition.colours, name))
            for (const [x, y] of [...outline, ...(sticker?.outline ?? [])])
              expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThanOrEqual(1.0001)
      }),
      { numRuns: 20 },
    )
  })

  it('shows front, right and top near, and the others far', () => {
    const sides = (name: 'near' | 'far') =>
      new Set(
        project(cube2, start(cube2), cube2.definition.colours, name).flatMap(({ piece, face }) =>
          face === undefined
            ? []
            : [directionOfVector(cube2.pieces[piece].faces[face].normal).name],
        ),
      )
    expect(sides('near')).toEqual(new Set(['up', 'front', 'right']))
    expect(sides('far')).toEqual(new Set(['down', 'back', 'left']))
  })

  it('is written with short plain numbers, the same on every machine', () => {
    for (const name of WINDOW_NAMES)
      for (const { outline, sticker } of project(
        cube2,
        start(cube2),
        cube2.definition.colours,
        name,
      )) {
        const text = outlinePath(outline) + (sticker ? markTransform(sticker) : '')
        expect(text).not.toMatch(/NaN|e-|-0[ ,LZ)]/)
        expect(text).not.toMatch(/\.\d{4,}/)
      }
  })
})
