import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { INVERSE, multiply } from '../rotation'
import { looksHome } from '../state'
import { after, turnsIn } from '../testing'
import { fitAfter } from './fitTest'
import { holdOf } from './placements'

describe('the fit test', () => {
  for (const id of ['tilt-3', 'prism-6', 'cube-3'])
    it(`says before the turns what is seen after them: ${id}`, () => {
      const puzzle = must(puzzleById(id))
      fc.assert(
        fc.property(turnsIn(puzzle), turnsIn(puzzle, 4), fc.nat(25), (turns, tried, piece) => {
          const from = after(puzzle, turns)
          const { fit, state, sentence } = must(
            fitAfter(puzzle, puzzle.definition.colours, from, tried, piece),
          )
          expect([...state]).toEqual([...after(puzzle, tried, from)])
          const hold = holdOf(puzzle, state) ?? 0
          const rotation = multiply(INVERSE[hold], state[piece])
          // What shows the finished look of the place that it fills fits it.
          const home = puzzle.pieces.findIndex(
            (_, p) => puzzle.slot[24 * p] === puzzle.slot[24 * piece + rotation],
          )
          expect(fit === 'home').toBe(puzzle.look[24 * piece + rotation] === puzzle.look[24 * home])
          if (fit === 'home') expect(looksHome(puzzle, piece, rotation)).toBe(true)
          expect(sentence).toContain(
            fit === 'home' ? 'and fits' : fit === 'shape' ? 'Its shape fits' : 'does not fit',
          )
        }),
        { numRuns: 40 },
      )
    })

  it('finds every shape right on a plain cube', () => {
    const puzzle = must(puzzleById('cube-3'))
    fc.assert(
      fc.property(turnsIn(puzzle), fc.nat(25), (turns, piece) => {
        const found = fitAfter(puzzle, puzzle.definition.colours, after(puzzle, turns), [], piece)
        expect(must(found).fit).not.toBe('out')
      }),
      { numRuns: 40 },
    )
  })
})
