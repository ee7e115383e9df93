import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { isInShape, scramble, scrambledState } from '../scramble/scramble'
import { blockOf, start, turn, turnAll, type State } from '../state'
import { anyGlued, cube3, gluedCube, looseBlocks } from '../testing'
import { frameOf } from './frame'
import {
  changesShape,
  hasLayout,
  layoutsOf,
  loopsThrough,
  turnsToFinished,
  type Layouts,
} from './layouts'

const listed = (puzzle: Puzzle): Layouts => {
  const layouts = layoutsOf(puzzle)
  if (!layouts) throw new Error('no layouts')
  return layouts
}

/** Legal turns of the frame, chosen by numbers. */
function wander(puzzle: Puzzle, numbers: readonly number[]): State {
  const { turns } = frameOf(puzzle)
  return numbers.reduce<State>((state, n) => {
    const free = turns.filter((each) => !blockOf(puzzle, state, each))
    return free.length === 0 ? state : must(turn(puzzle, state, free[n % free.length]))
  }, start(puzzle))
}

const walk = fc.array(fc.nat(1000), { maxLength: 30 })

describe('layouts of glued blocks', () => {
  it('are not asked for where nothing is glued', () => {
    expect(layoutsOf(cube3)).toBeUndefined()
  })

  it('are the 24 placements of one stiff edge, for it can lie any way round on any edge', () => {
    expect(listed(gluedCube).list).toHaveLength(24)
    expect(changesShape(gluedCube)).toBe(true)
  })

  it('are one where the block can never move, and the shape is then kept', () => {
    const cells = [0, 1].flatMap((x) => [0, 1].flatMap((y) => [0, 1].map((z) => [x, y, z])))
    const mechanism = { kind: 'box', size: [3, 3, 3] }
    const fixed = compile(
      must(readDefinition({ schema: 1, id: 'fixed', name: 'fixed', mechanism, glue: [cells] })),
    )
    expect(listed(fixed).list).toHaveLength(1)
    expect(changesShape(fixed)).toBe(false)
    expect(isInShape(fixed, scrambledState(fixed, scramble(fixed, 1)))).toBe(true)
  })

  it('hold wherever legal turns go, and each knows a legal way back', () => {
    fc.assert(
      fc.property(anyGlued, walk, (puzzle, numbers) => {
        const layouts = layoutsOf(puzzle)
        if (!layouts) return
        const state = wander(puzzle, numbers)
        expect(hasLayout(puzzle, layouts, state)).toBe(true)
        const back = turnsToFinished(puzzle, layouts, state)
        expect(back?.length).toBeLessThanOrEqual(numbers.length)
        expect(isInShape(puzzle, must(turnAll(puzzle, state, back ?? [])))).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  it('have loops that are legal and come back to the finished layout', () => {
    // Some blocks lock the puzzle, so that it has none; not all do.
    let loops = 0
    fc.assert(
      fc.property(anyGlued, (puzzle) => {
        const layouts = layoutsOf(puzzle)
        if (!layouts) return
        let length = 0
        let seen = 0
        for (const { turns, effect } of loopsThrough(puzzle, layouts)) {
          const end = must(turnAll(puzzle, start(puzzle), turns))
          expect(Array.from(end)).toEqual(Array.from(effect))
          expect(isInShape(puzzle, end)).toBe(true)
          expect(turns.length).toBeGreaterThanOrEqual(length)
          length = turns.length
          if (++seen === 40) break
        }
        loops += seen
      }),
      { numRuns: 20 },
    )
    expect(loops).toBeGreaterThan(0)
  })

  it('are given up where blocks can lie in too many ways', () => {
    expect(layoutsOf(looseBlocks)).toBeUndefined()
    expect(changesShape(looseBlocks)).toBe(true)
  })
})
