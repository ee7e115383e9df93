import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { layersOf } from '../analysis/layers'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { looksHome, looksSame, start, turnAll, turnFreely, type State } from '../state'
import { find } from './find'

const cube2 = must(puzzleById('cube-2'))
const cube3 = must(puzzleById('cube-3'))
const tetra = must(puzzleById('tetra-3'))

const after = (puzzle: Puzzle, turns: readonly Turn[]): State =>
  must(turnAll(puzzle, start(puzzle), turns))
const read = (puzzle: Puzzle, text: string) => must(readTurns(puzzle, text))
const written = (turns: readonly Turn[]) => turns.map(({ name }) => name).join(' ')

/** The fewest turns to a position, by trying all rows. */
function fewest(puzzle: Puzzle, position: State, most: number): number | undefined {
  const turns = puzzle.turns.filter(({ grip }) => layersOf(puzzle).includes(grip))
  const isThere = (state: State) =>
    puzzle.pieces.every(
      (_, p) => puzzle.look[24 * p + state[p]] === puzzle.look[24 * p + position[p]],
    )
  let rows: State[] = [start(puzzle)]
  for (let depth = 0; depth <= most; depth++) {
    if (rows.some(isThere)) return depth
    rows = rows.flatMap((state) =>
      turns.map((turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length))),
    )
  }
  return undefined
}

describe('find', () => {
  it('gives a sequence of the fewest turns with the effect of another, each made on the engine', async () => {
    const row = (puzzle: Puzzle) => {
      const turns = puzzle.turns.filter(({ grip }) => layersOf(puzzle).includes(grip))
      return fc
        .array(fc.nat(turns.length - 1), { minLength: 1, maxLength: 3 })
        .map((picks) => picks.map((i) => turns[i]))
    }
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(cube2, tetra), fc.gen(), async (puzzle, gen) => {
        const asked = gen(row, puzzle)
        const position = after(puzzle, asked)
        const found = must(await find(puzzle, { position, most: 6 }))
        expect(found.length).toBeGreaterThan(0)
        for (const { turns } of found) {
          expect(looksSame(puzzle, after(puzzle, turns), position)).toBe(true)
          expect(turns.length).toBe(fewest(puzzle, position, 3))
        }
        expect(found.map(({ cost }) => cost)).toEqual(
          found.map(({ cost }) => cost).sort((a, b) => a - b),
        )
      }),
      { numRuns: 12 },
    )
  })

  it('makes a known sequence shorter, and keeps to the layers that may turn', async () => {
    const position = after(cube3, read(cube3, "R U R' U' R U R' U' R U R' U'"))
    const found = must(await find(cube3, { position, most: 14, layers: ['R', 'U'] }))
    expect(found[0].turns.length).toBeLessThanOrEqual(12)
    for (const { turns } of found) expect(written(turns)).toMatch(/^([RU][2']? ?)+$/)
  })

  it('lets what is not asked about do as it likes', async () => {
    const position = after(cube3, read(cube3, "R U R'"))
    const pieces = cube3.pieces.flatMap(({ id }, p) => (id === 'DFR' || id === 'FR' ? [p] : []))
    const found = must(await find(cube3, { position, pieces, most: 3 }))
    expect(found[0].turns.length).toBeLessThanOrEqual(3)
    for (const { turns } of found) {
      const end = after(cube3, turns)
      for (const p of pieces) expect(end[p]).toBe(position[p])
    }
  })

  it('says beforehand that no turns exchange just two pieces, and refuses a wish that is none', async () => {
    const two = start(cube3).slice()
    const [a, b] = ['UF', 'UB'].map((id) => cube3.pieces.findIndex((piece) => piece.id === id))
    const rotation = cube3.holds.find(
      (r) =>
        cube3.place[24 * a + r] === b && cube3.place[24 * b + r] === a && looksHome(cube3, a, 0),
    )
    if (rotation === undefined) throw new Error('no rotation exchanges them')
    two[a] = two[b] = rotation
    const impossible = await find(cube3, { position: two, most: 8 })
    expect(impossible.ok ? '' : impossible.problem.sentence).toContain('No turns do that')
    const position = start(cube3)
    const long = await find(cube3, { position, most: 60 })
    expect(long.ok ? '' : long.problem.field).toBe('most')
    const strange = await find(cube3, { position, most: 6, layers: ['Q'] })
    expect(strange.ok ? '' : `${strange.problem.field} ${strange.problem.sentence}`).toMatch(
      /layers .*'Q'/,
    )
  })

  it('ends when it is told to', async () => {
    const position = after(cube3, read(cube3, "R U F D L B R' U' F' D'"))
    let asked = 0
    const found = must(
      await find(cube3, { position, most: 20, rest: () => Promise.resolve(++asked > 3) }),
    )
    expect(found).toEqual([])
  })
})
