import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf } from '../analysis/frame'
import { must } from '../result'
import { puzzleById } from '../catalog'
import { looksHome, start } from '../state'
import { after, box, cube2, cube3 } from '../testing'
import { distanceOf, halfTurnTable } from './distanceTable'
import { shortestFor } from './twoEnded'

const all = (puzzle: typeof cube2) => puzzle.pieces.map((_, p) => p)

describe('the two-ended search', () => {
  it('finds the fewest turns, as the table of all states says, when every piece matters', () => {
    const { turns } = frameOf(cube2)
    const table = halfTurnTable(cube2)
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...turns), { maxLength: 7 }), (made) => {
        const state = after(cube2, made)
        const ways = shortestFor(cube2, all(cube2), state, turns, 8, 3)
        expect(ways.length).toBeGreaterThan(0)
        for (const way of ways) {
          expect(way).toHaveLength(distanceOf(cube2, table, state))
          expect(Array.from(after(cube2, way, state))).toEqual(Array.from(start(cube2)))
        }
      }),
      { numRuns: 40 },
    )
  })

  it('brings the pieces that matter home and no others need be', () => {
    const { turns } = frameOf(cube3)
    const pieces = [0, 3, 9]
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...turns), { maxLength: 20 }), (made) => {
        const state = after(cube3, made)
        const [way] = shortestFor(cube3, pieces, state, turns, 12, 1)
        const end = after(cube3, way, state)
        expect(pieces.every((p) => looksHome(cube3, p, end[p]))).toBe(true)
      }),
      { numRuns: 25 },
    )
  })

  it('finds nothing within fewer turns than it takes', () => {
    const flat = box(1, 3, 3)
    const { turns } = frameOf(flat)
    const state = after(flat, [turns[0], turns[turns.length - 1]])
    expect(shortestFor(flat, all(flat), state, turns, 1, 1)).toEqual([])
    expect(shortestFor(flat, all(flat), state, turns, 2, 1)[0]).toHaveLength(2)
  })

  it('keeps to what the tally asks: an even number of quarter turns', () => {
    const { turns } = frameOf(cube3)
    const parity = {
      plus: (sum: number, turn: (typeof turns)[number]) => (sum + (turn.amount % 2)) % 2,
      seen: (sum: number) => sum,
    }
    const prism = must(puzzleById('cube-3'))
    const state = after(prism, [turns[0]])
    const [way] = shortestFor(prism, [0], state, turns, 8, 1, parity)
    expect(way.filter(({ amount }) => amount % 2 === 1).length % 2).toBe(0)
  })
})
