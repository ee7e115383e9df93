import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stateMade } from '../analysis/effect'
import { puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { must } from '../result'
import type { State } from '../state'
import derived from './derived/shortest.json'
import { find } from './find'
import { knownShortest, pairsTurned, searchShortest } from './knownShortest'
import { inHold, undoing } from './moves'
import { does, waysFor } from './ways'
import { completed, wishOf } from './wish'

const cube3 = must(puzzleById('cube-3'))
const written = Object.values(derived as Record<string, string[][]>)

/** Pieces that are not as in the finished puzzle. */
const changed = (state: State) =>
  [...state].flatMap((r, p) =>
    cube3.look[24 * p + r] === cube3.look[24 * p] && cube3.place[24 * p + r] === p ? [] : [p],
  )

describe('the fewest turns that turn two pieces in place', () => {
  it('do that and nothing else, each pair in ways of one length', () => {
    expect(written).toHaveLength(1)
    for (const ways of written[0]) {
      const lengths = new Set<number>()
      for (const text of ways) {
        const turns = must(readTurns(cube3, text))
        lengths.add(turns.length)
        const moved = changed(must(stateMade(cube3, turns)))
        expect(moved).toHaveLength(2)
        expect(new Set(moved.map((p) => cube3.pieces[p].kind)).size).toBe(1)
      }
      expect(lengths.size).toBe(1)
    }
  })

  it('are known of every pair, in every hold and taken back', async () => {
    const pairs = pairsTurned(cube3)
    const lengths: number[] = []
    for (const pair of pairs) {
      const wanted = must(completed(cube3, wishOf(cube3, pair)))
      const ways = knownShortest(cube3, (turns) => does(cube3, turns, wanted))
      expect(ways.length).toBeGreaterThan(0)
      lengths.push(ways[0].length)
    }
    // Edges in eleven or twelve turns, corners in twelve or thirteen.
    expect(Math.min(...lengths)).toBe(11)
    expect(Math.max(...lengths)).toBe(13)
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...pairs),
        fc.constantFrom(...cube3.holds),
        fc.boolean(),
        async (pair, hold, isBack) => {
          const position = inHold(cube3, isBack ? undoing(cube3, pair) : pair, hold)
          const whole = must(completed(cube3, wishOf(cube3, position)))
          const asked = { most: 14, scheme: cube3.definition.colours }
          const [best, ...others] = must(await waysFor(cube3, whole, asked))
          expect(best.isShortest).toBe(true)
          for (const way of [best, ...others]) {
            expect(way.turnCount).toBe(lengths[pairs.indexOf(pair)])
            expect(does(cube3, way.turns, whole)).toBe(true)
          }
        },
      ),
      { numRuns: 12 },
    )
  })

  it('are not taken for proven where pieces look alike or may lie as they like', async () => {
    const [pair] = pairsTurned(cube3)
    const whole = must(completed(cube3, wishOf(cube3, pair)))
    const loose = { ...whole, pieces: whole.pieces.slice(1) }
    const asked = { most: 14, scheme: cube3.definition.colours, rest: () => Promise.resolve(true) }
    expect(must(await waysFor(cube3, loose, asked))).toEqual([])
    const outer = [...'UDFBRL']
    expect(must(await waysFor(cube3, whole, { ...asked, layers: outer }))).toEqual([])
    const all = cube3.grips.map(({ name }) => name)
    expect(must(await waysFor(cube3, whole, { ...asked, layers: all }))).toEqual([])
    // In the prism some pieces look alike, so what is proven of the cube is not of it.
    const prism = must(puzzleById('prism-6'))
    let met = 0
    for (const position of pairsTurned(prism).slice(0, 6)) {
      const there = must(completed(prism, wishOf(prism, position)))
      const ways = await waysFor(prism, there, { ...asked, scheme: prism.definition.colours })
      if (ways.ok) expect(ways.value).toEqual([])
      met += Number(ways.ok)
    }
    expect(met).toBeGreaterThan(0)
  })
})

describe('the search for them', () => {
  it('comes to what the finder proves, on a puzzle where it can', async () => {
    const tetra = must(puzzleById('tetra-3'))
    const found = await searchShortest(tetra, { near: 4, far: 4, room: 20, ways: 6 })
    expect(found.length).toBeGreaterThan(0)
    const pairs = pairsTurned(tetra)
    for (const pair of pairs) {
      const whole = must(completed(tetra, wishOf(tetra, pair)))
      const known = knownShortest(tetra, (turns) => does(tetra, turns, whole), found)
      const proven = must(
        await find(tetra, { position: pair, pieces: whole.pieces, most: 8, beyond: 4 }),
      )
      expect(known.length > 0).toBe(proven.length > 0)
      if (known.length > 0) expect(known[0].length).toBe(proven[0].turns.length)
    }
  }, 120_000)
})
