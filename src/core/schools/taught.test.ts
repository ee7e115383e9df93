import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plan } from '../coach/plan'
import { statesAfterStages } from '../coach/verify'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { scramble, scrambledState } from '../scramble/scramble'
import { doSequence, sequence } from '../notation/sequence'
import { start } from '../state'
import { fits } from './fits'
import { halfByHalf } from './half-by-half'
import { taught } from './taught'

type Centre = readonly [number, number, number]

function pairOf(centre: Centre): Puzzle {
  const size = [3, 3, 3]
  return compile(
    must(
      readDefinition({
        schema: 1,
        id: 'pair',
        name: 'pair',
        mechanism: {
          kind: 'conjoined',
          boxes: [
            { size, centre: [0, 0, 0] },
            { size, centre },
          ],
        },
      }),
    ),
  )
}

const far = fc.constantFrom(-2, 2)
/** Two boxes that share a column along any axis, either of them first. */
const columns = fc
  .tuple(far, far, fc.constantFrom(0, 1, 2))
  .map(([a, b, axis]): Centre => [[0, a, b] as const, [a, 0, b] as const, [a, b, 0] as const][axis])

const freeLayers = (puzzle: Puzzle, half: number): string[] =>
  puzzle.grips
    .flatMap(({ name, core }) => (core === half && name.length === 1 ? [name] : []))
    .sort()

describe('a school of conjoined halves, on any pair', () => {
  it('is taught in letters of layers that turn, whichever way the halves lie', () => {
    fc.assert(
      fc.property(columns, (centre) => {
        const puzzle = pairOf(centre)
        expect(fits(halfByHalf, puzzle.definition)).toBe(true)
        for (const stage of taught(puzzle, halfByHalf).stages) {
          if (stage.technique.kind !== 'known') continue
          const half = stage.id.endsWith('1') ? 0 : 1
          expect(freeLayers(puzzle, half)).toContain(stage.technique.fetch)
          for (const text of stage.technique.sequences ?? []) {
            const state = doSequence(sequence(puzzle, text), start(puzzle))
            // Nothing of the other half moves, and no corner but with the layer as a whole.
            const moved = puzzle.pieces.filter((_, p) => state[p] !== 0)
            expect(new Set(moved.map(({ core }) => core))).toEqual(new Set([half]))
            const corners = moved.filter(({ kind }) => kind === 'corner')
            expect([0, 4]).toContain(corners.length)
          }
        }
      }),
      { numRuns: 12 },
    )
  })

  it('leads them home', () => {
    const puzzle = pairOf([0, -2, 2])
    for (const seed of [1, 2, 3]) {
      const from = scrambledState(puzzle, scramble(puzzle, seed))
      const route = must(plan(puzzle, halfByHalf, from))
      const ends = statesAfterStages(puzzle, halfByHalf, route)
      expect(ends.filter(({ met }) => !met)).toEqual([])
    }
  })

  it('is not offered where they meet otherwise', () => {
    for (const centre of [
      [-2, 0, 0],
      [2, 2, 2],
    ] as const)
      expect(fits(halfByHalf, pairOf(centre).definition), centre.join()).toBe(false)
  })
})
