import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inverseOf, isSolved, sameState, start } from '../state'
import { after, anyBox, box, cube2, cube3 } from '../testing'
import { seededRandom } from '../random'
import { drawState, LEAST_TURNS, scramble, scrambledState } from './scramble'

describe('a scramble', () => {
  it.each([
    ['cube-2', cube2],
    ['cube-3', cube3],
    ['3x2x3', box(3, 2, 3)],
  ])('of %s can be replayed, undone, and is never shorter than asked', (_, puzzle) => {
    fc.assert(
      fc.property(fc.nat(), fc.integer({ min: 1, max: 14 }), (seed, least) => {
        const { turns, phases } = scramble(puzzle, seed, least)
        expect(turns.length).toBeGreaterThanOrEqual(least)
        expect(phases.flat()).toEqual(turns)
        expect(scramble(puzzle, seed, least).turns).toEqual(turns)
        const back = after(puzzle, inverseOf(puzzle, turns), after(puzzle, turns))
        expect(sameState(back, start(puzzle))).toBe(true)
        turns.forEach((turn, i) => expect(turn.grip).not.toBe(turns[i + 1]?.grip))
      }),
      { numRuns: 60 },
    )
  })

  it('of a small puzzle leads to the very state that was drawn, also where a detour is needed', () => {
    for (let seed = 0; seed < 300; seed++) {
      const drawn = drawState(cube2, seededRandom(seed))
      expect(sameState(scrambledState(cube2, scramble(cube2, seed)), drawn)).toBe(true)
      expect(scramble(cube2, seed).turns.length).toBeGreaterThanOrEqual(LEAST_TURNS)
    }
  })

  it('of any box ends and can be replayed, however few turns the box has', () => {
    fc.assert(
      fc.property(anyBox, fc.nat(), (puzzle, seed) => {
        fc.pre(puzzle.pieces.length < 40 && puzzle.turns.some(({ whole }) => !whole))
        const drawn = scramble(puzzle, seed)
        const state = scrambledState(puzzle, drawn)
        const home = after(puzzle, inverseOf(puzzle, drawn.turns), state)
        expect(sameState(home, start(puzzle))).toBe(true)
      }),
      { numRuns: 20 },
    )
    for (let seed = 0; seed < 300; seed++)
      for (const small of [box(1, 2, 1), box(2, 1, 1), box(1, 2, 2), box(2, 2, 1)])
        expect(scramble(small, seed).turns.length).toBeLessThanOrEqual(LEAST_TURNS + 3)
  })

  it('draws all states alike: each corner is in each place an eighth of the time', () => {
    const random = seededRandom(4)
    const runs = 4000
    const hits = Array.from({ length: runs }, () => drawState(cube2, random)).filter(
      (state) => cube2.place[24 * 7 + state[7]] === 3,
    ).length
    // One of seven places beside the frame corner; five standard deviations either way.
    const expected = runs / 7
    expect(Math.abs(hits - expected)).toBeLessThan(5 * Math.sqrt(expected * (6 / 7)))
    expect(isSolved(cube2, start(cube2))).toBe(true)
  })
})
