import { describe, expect, it } from 'vitest'
import { anchoredHolds, anchorsOf } from '../analysis/anchors'
import { holdOf } from '../analysis/placements'
import { piecesShowing, sideOpposite, sidesOf, turnSide } from '../analysis/sides'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { directionOfName } from '../puzzle/directions'
import { must } from '../result'
import { multiply } from '../rotation'
import { scramble, scrambledState } from '../scramble/scramble'
import { rotateState } from '../state'
import { selected } from './selections'

const cube3 = must(puzzleById('cube-3'))
const tetra3 = must(puzzleById('tetra-3'))

describe('a selection', () => {
  it('counts the pieces of a 3x3x3 from every base', () => {
    for (const base of sidesOf(cube3).keys()) {
      const count = (kind: string, layer: 'base' | 'middle' | 'last') =>
        selected(cube3, { kinds: [kind], layers: [layer] }, base).length
      expect([count('corner', 'base'), count('corner', 'middle'), count('corner', 'last')]).toEqual(
        [4, 0, 4],
      )
      expect([count('edge', 'base'), count('edge', 'middle'), count('edge', 'last')]).toEqual([
        4, 4, 4,
      ])
      expect([count('centre', 'base'), count('centre', 'middle')]).toEqual([1, 4])
    }
  })

  it('counts those of a tetrahedron from every face, which has none opposite', () => {
    expect(sidesOf(tetra3).size).toBe(4)
    for (const base of sidesOf(tetra3).keys()) {
      expect(sideOpposite(tetra3, base)).toBeUndefined()
      const count = (kind: string, layer: 'base' | 'last') =>
        selected(tetra3, { kinds: [kind], layers: [layer] }, base).length
      expect([count('tip', 'base'), count('tip', 'last')]).toEqual([3, 1])
      expect([count('axial centre', 'base'), count('axial centre', 'last')]).toEqual([3, 1])
      expect([count('edge', 'base'), count('edge', 'last')]).toEqual([3, 3])
    }
  })

  it('leaves out what it says', () => {
    const base = directionOfName('down')
    const all = selected(cube3, {}, base)
    const but = selected(cube3, { but: { layers: ['base'] } }, base)
    const first = selected(cube3, { layers: ['base'] }, base)
    expect(all).toHaveLength(26)
    expect([...but, ...first].sort((a, b) => a - b)).toEqual([...all])
    expect(selected(cube3, { kinds: ['wing'] }, base)).toEqual([])
  })
})

describe('the sides of a puzzle', () => {
  it.each(CATALOG_IDS)('go to sides in every hold, and the pieces with them: %s', (id) => {
    const puzzle = must(puzzleById(id))
    for (const hold of puzzle.holds) {
      const images = [...sidesOf(puzzle).keys()].map((side) => turnSide(puzzle, hold, side))
      expect(new Set(images).size).toBe(images.length)
      for (const other of puzzle.holds.slice(0, 4))
        for (const side of sidesOf(puzzle).keys())
          expect(turnSide(puzzle, other, turnSide(puzzle, hold, side))).toBe(
            turnSide(puzzle, multiply(other, hold), side),
          )
    }
  })

  it('show what the definition gives them', () => {
    const sides = (puzzle: typeof cube3) =>
      [...sidesOf(puzzle).keys()].map((side) => piecesShowing(puzzle, side).length)
    expect(sides(cube3)).toEqual([9, 9, 9, 9, 9, 9])
    expect(sides(tetra3)).toEqual([9, 9, 9, 9])
  })
})

describe('the anchors', () => {
  it.each(CATALOG_IDS)('tell the hold of any state, where there are some: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const anchors = anchorsOf(puzzle)
    if (anchors.length === 0) return
    for (const [seed, hold] of puzzle.holds.slice(0, 8).entries()) {
      const state = rotateState(scrambledState(puzzle, scramble(puzzle, seed + 1)), hold)
      const found = anchoredHolds(puzzle, state)
      expect(found).toContain(hold)
      // Few anchors can leave several holds open; what they leave has the true one.
      if (found.length === 1) expect(found).toEqual([holdOf(puzzle, state)])
    }
  })

  it('are the centres of a 3x3x3, and what never leaves its vertex of a tetrahedron', () => {
    expect(anchorsOf(cube3)).toHaveLength(6)
    expect(anchorsOf(tetra3)).toHaveLength(8)
    expect(anchorsOf(must(puzzleById('cube-2')))).toEqual([])
    expect(anchorsOf(must(puzzleById('cube-4')))).toEqual([])
  })
})
