import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf } from '../analysis/frame'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { puzzleById } from '../catalog'
import { blockOf, looksHome, start, turnAll, type State } from '../state'
import { after, box, cube2, cube3, gluedCube } from '../testing'
import { distanceOf, halfTurnTable } from './distanceTable'
import { isInShape, scramble, scrambledState } from '../scramble/scramble'
import { movesOf } from '../universal/moves'
import { shortestFor, type Search } from './twoEnded'

const all = (puzzle: Puzzle) => puzzle.pieces.map((_, p) => p)

const search = (
  puzzle: Puzzle,
  pieces: readonly number[],
  state: State,
  most: number,
  ways = 1,
  more: Partial<Search> = {},
) => {
  const { turns } = frameOf(puzzle)
  return shortestFor(puzzle, { pieces, state, turns, most, ways, kept: 40_000, ...more })
}

describe('the two-ended search', () => {
  it('finds the fewest turns, as the table of all states says, when every piece matters', async () => {
    const { turns } = frameOf(cube2)
    const table = halfTurnTable(cube2)
    await fc.assert(
      fc.asyncProperty(fc.array(fc.constantFrom(...turns), { maxLength: 7 }), async (made) => {
        const state = after(cube2, made)
        const ways = await search(cube2, all(cube2), state, 8, 3)
        expect(ways.length).toBeGreaterThan(0)
        for (const way of ways) {
          expect(way).toHaveLength(distanceOf(cube2, table, state))
          expect(Array.from(after(cube2, way, state))).toEqual(Array.from(start(cube2)))
        }
      }),
      { numRuns: 40 },
    )
  })

  it('brings the pieces that matter home and no others need be', async () => {
    const { turns } = frameOf(cube3)
    const pieces = [0, 3, 9]
    await fc.assert(
      fc.asyncProperty(fc.array(fc.constantFrom(...turns), { maxLength: 20 }), async (made) => {
        const state = after(cube3, made)
        const [way] = await search(cube3, pieces, state, 12)
        const end = after(cube3, way, state)
        expect(pieces.every((p) => looksHome(cube3, p, end[p]))).toBe(true)
      }),
      { numRuns: 25 },
    )
  })

  it('finds nothing within fewer turns than it takes', async () => {
    const flat = box(1, 3, 3)
    const { turns } = frameOf(flat)
    const state = after(flat, [turns[0], turns[turns.length - 1]])
    expect(await search(flat, all(flat), state, 1)).toEqual([])
    expect((await search(flat, all(flat), state, 2))[0]).toHaveLength(2)
  })

  it('keeps to what the tally asks: an even number of quarter turns', async () => {
    const { turns } = frameOf(cube3)
    const tally = {
      plus: (sum: number, turn: (typeof turns)[number]) => (sum + (turn.amount % 2)) % 2,
      seen: (sum: number) => sum,
    }
    const prism = must(puzzleById('cube-3'))
    const state = after(prism, [turns[0]])
    const [way] = await search(prism, [0], state, 8, 1, { tally })
    expect(way.filter(({ amount }) => amount % 2 === 1).length % 2).toBe(0)
  })

  it('makes only turns that are free, and brings blocks back to where they were', async () => {
    for (const puzzle of [gluedCube, must(puzzleById('plus-3x3x3'))]) {
      const { turns } = frameOf(puzzle)
      const blocked = turns.filter((turn) => blockOf(puzzle, start(puzzle), turn))
      expect(blocked.length < turns.length).toBe(true)
      let found = 0
      for (const { effect } of movesOf(puzzle).filter((move) => move.turns.length > 1)) {
        const pieces = all(puzzle)
          .filter((p) => effect[p] !== 0)
          .slice(0, 3)
        for (const way of await search(puzzle, pieces, effect, 7, 2)) {
          const end = must(turnAll(puzzle, effect, way))
          expect(isInShape(puzzle, end)).toBe(true)
          expect(pieces.every((p) => looksHome(puzzle, p, end[p]))).toBe(true)
          found++
        }
      }
      expect(found).toBeGreaterThan(0)
    }
  })

  it('ends when it is told to, and then has found nothing', async () => {
    const state = scrambledState(cube3, scramble(cube3, 1))
    let rests = 0
    const rest = () => Promise.resolve(++rests >= 3)
    expect(await search(cube3, all(cube3), state, 20, 1, { kept: 1e6, rest })).toEqual([])
    expect(rests).toBe(3)
  })
})
