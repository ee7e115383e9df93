import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { orderOfPuzzle } from '../analysis/order'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { isSolved, start, turnAll } from '../state'
import { after, box, cube3, glued, turnsIn } from '../testing'
import { inFrame } from '../analysis/frame'
import { distanceOf, lookTable } from './distanceTable'
import { PictureTable } from './pictureTable'
import { prepareShortest, shortestHome, tableOf } from '../universal/shortestHome'

/** Blocks on a 2x2x2, on a 2x3x4 and on a flat box. */
const TIED: readonly Puzzle[] = [
  glued(
    [2, 2, 2],
    [
      [0.5, 0.5, 0.5],
      [0.5, 0.5, -0.5],
    ],
  ),
  glued(
    [2, 3, 4],
    [
      [0.5, 1, 0.5],
      [0.5, 1, 1.5],
    ],
    [
      [-0.5, 1, -1.5],
      [0.5, 1, -1.5],
    ],
  ),
  glued(
    [3, 2, 3],
    [
      [1, -0.5, -1],
      [1, 0.5, -1],
    ],
  ),
]

describe('the table of pictures', () => {
  it('says of every state what the table of numbered states says', () => {
    const flat = box(1, 3, 3)
    const [pictures, numbered] = [must(PictureTable.build(flat, 1e6)), lookTable(flat)]
    expect(pictures.count).toBe(numbered.counts.reduce((a, b) => a + b))
    fc.assert(
      fc.property(turnsIn(flat), (turns) => {
        const state = inFrame(flat, after(flat, turns))
        expect(pictures.distanceOf(state)).toBe(distanceOf(flat, numbered, state))
      }),
      { numRuns: 60 },
    )
  })

  it.each(TIED)('has as many pictures as the count of the glued puzzle says', (puzzle) => {
    const { groupOrder, visibleStates } = orderOfPuzzle(puzzle)
    const { count } = must(PictureTable.build(puzzle, 1e6))
    expect(tableOf(puzzle)).toEqual({ kind: 'pictures', states: Number(groupOrder) })
    expect(BigInt(count)).toBe(visibleStates)
  })

  it('leads home by free turns, in as many as it says, by every sequence that it gives', () => {
    for (const puzzle of TIED) {
      let far = start(puzzle)
      const table = must(PictureTable.build(puzzle, 1e6))
      for (let seed = 0; seed < 60; seed++) {
        const turn = puzzle.turns[(7 * seed + 3) % puzzle.turns.length]
        const next = turnAll(puzzle, far, [turn])
        if (next.ok && !turn.whole) far = inFrame(puzzle, next.value)
      }
      const ways = table.shortest(far, 5)
      if (!ways) throw new Error('no way home')
      expect(ways.length).toBeGreaterThan(0)
      for (const way of ways) {
        expect(way).toHaveLength(table.distanceOf(far) as number)
        expect(isSolved(puzzle, must(turnAll(puzzle, far, way)))).toBe(true)
      }
    }
  })

  it('is given up where there are more pictures than the limit, and can be cancelled', () => {
    expect(PictureTable.build(box(2, 2, 3), 1000)).toMatchObject({
      ok: false,
      problem: { code: 'too-large' },
    })
    const stop = () => {
      throw new Error('cancelled')
    }
    expect(() => PictureTable.build(box(2, 2, 3), 1e6, stop)).toThrow('cancelled')
  })

  it('is not chosen where there are too many states, or where they can be numbered', () => {
    expect(tableOf(cube3)).toBeUndefined()
    expect(tableOf(box(1, 3, 3))?.kind).toBe('numbered')
    expect(tableOf(box(2, 3, 4))?.kind).toBe('pictures')
  })

  it('tells how far it has come', () => {
    const puzzle = TIED[0]
    const shares: number[] = []
    prepareShortest(puzzle, (share) => shares.push(share))
    expect(shares.length).toBeGreaterThan(1)
    expect(Math.max(...shares)).toBeLessThanOrEqual(1)
    expect([...shares].sort((a, b) => a - b)).toEqual(shares)
    expect(shortestHome(puzzle, start(puzzle), 3)).toEqual([[]])
  })
})
