import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coordinatesFor, spanSize } from '../analysis/invariants'
import { canBlock } from '../analysis/placements'
import { areMovesAll, hasMoves, movesOf } from './moves'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { isInShape, scramble, scrambledState } from '../scramble/scramble'
import { start, turnAll } from '../state'
import { inSpan, sumsUnder, vectorOfState } from '../analysis/sums'
import { workOf } from './orbitsAtWork'
import { capped } from '../testing'
import { canReshape, canTakeShape, reshape } from './reshape'

const CHANGING = ['shift-3x3x5', 'diagonal-3x3x5', 'plus-3x3x3'] as const

describe.each(CHANGING)('the shape of %s', (id) => {
  const puzzle = must(puzzleById(id))

  it('comes back from anywhere by legal turns, and needs none where it is whole', () => {
    expect(canReshape(puzzle)).toBe(true)
    expect(reshape(puzzle, start(puzzle))).toEqual([])
    for (let seed = 1; seed <= 8; seed++) {
      const state = scrambledState(puzzle, scramble(puzzle, seed))
      expect(isInShape(puzzle, state)).toBe(false)
      const turns = reshape(puzzle, state)
      if (!turns) throw new Error('no way back')
      expect(turns.length).toBeLessThanOrEqual(14)
      expect(isInShape(puzzle, must(turnAll(puzzle, state, turns)))).toBe(true)
    }
  })

  it('never takes more turns to come back than it was turned away', () => {
    const free = puzzle.turns.filter(
      ({ grip, whole }) =>
        !whole && !puzzle.grips[grip].condition && /^[UDFBRL]/.test(puzzle.grips[grip].name),
    )
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...free), { maxLength: 4 }), (turns) => {
        const away = must(turnAll(puzzle, start(puzzle), turns))
        expect(reshape(puzzle, away)?.length).toBeLessThanOrEqual(turns.length)
      }),
      { numRuns: 25 },
    )
  })

  it('is kept by every move, which is legal from the finished puzzle', () => {
    for (const { turns, effect } of movesOf(puzzle)) {
      const end = must(turnAll(puzzle, start(puzzle), turns))
      expect(Array.from(end)).toEqual(Array.from(effect))
      expect(isInShape(puzzle, end)).toBe(true)
    }
  })

  it('leaves sums that the moves can settle, wherever it comes back from', () => {
    const { sums } = workOf(puzzle)
    for (let seed = 1; seed <= 6; seed++) {
      const state = scrambledState(puzzle, scramble(puzzle, seed))
      const back = must(turnAll(puzzle, state, reshape(puzzle, state) ?? []))
      expect(inSpan(sums, vectorOfState(puzzle, sums, back))).toBe(true)
    }
    const effects = movesOf(puzzle).map(({ effect }) => effect)
    const { turns, span } = sumsUnder(puzzle, sums.orbits, effects)
    const moduli = coordinatesFor(sums.orbits).map(({ modulus }) => modulus)
    expect(spanSize(turns, moduli)).toBe(span.size)
  })
})

describe('caps that meet in an edge', () => {
  it.each(['up right', 'up down right'])('come back from anywhere: %s', (caps) => {
    const puzzle = capped(...caps.split(' '))
    for (let seed = 1; seed <= 6; seed++) {
      const state = scrambledState(puzzle, scramble(puzzle, seed))
      const turns = reshape(puzzle, state)
      if (!turns) throw new Error('no way back')
      expect(isInShape(puzzle, must(turnAll(puzzle, state, turns)))).toBe(true)
    }
  })
})

describe('loops of capped puzzles', () => {
  it('are proven to be all where corners and edges of caps lie in one orbit each', () => {
    for (const caps of [
      ['up', 'down'],
      ['up', 'down', 'left', 'right'],
    ])
      expect(areMovesAll(capped(...caps))).toBe(true)
  })

  it.each(CHANGING)('are proven to be all that %s can do, as they are shipped', (id) => {
    expect(areMovesAll(must(puzzleById(id)))).toBe(true)
  })

  it('are not needed where every face has its cap, for then none is ever incomplete', () => {
    const whole = capped('up', 'down', 'left', 'right', 'front', 'back')
    expect(canBlock(whole)).toBe(false)
    expect(areMovesAll(whole)).toBe(true)
    expect(movesOf(whole).every(({ turns }) => turns.length === 1)).toBe(true)
  })
})

describe('a shape that no turns make', () => {
  it('is told before any search', () => {
    const shift = must(puzzleById('shift-3x3x5'))
    const away = scrambledState(shift, scramble(shift, 1))
    expect(canTakeShape(shift, away)).toBe(true)
    // One of the pieces that ride on a corner put where nothing carries it: it hangs in the air.
    const finished = start(shift)
    const cap = shift.pieces.findIndex(({ kind }) => /^cap/.test(kind))
    const elsewhere = Array.from({ length: 24 }, (_, r) => r).find(
      (r) => shift.place[24 * cap + r] === 255,
    )
    finished[cap] = elsewhere as number
    expect(canTakeShape(shift, finished)).toBe(false)
  })

  it('is no matter where the mechanism has no core', () => {
    const cube3 = must(puzzleById('cube-3'))
    expect(canReshape(cube3)).toBe(false)
    expect(hasMoves(cube3)).toBe(true)
  })
})
