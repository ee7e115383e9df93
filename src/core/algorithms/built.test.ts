import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stateMade } from '../analysis/effect'
import { readTurns } from '../notation/read'
import { simplify } from '../notation/rewrite'
import type { Turn } from '../puzzle/compile'
import { must } from '../result'
import { inverseOf } from '../state'
import { cube3 } from '../testing'
import { able } from './find'
import { builtWays } from './built'
import { does } from './ways'

const turns = able(cube3, ['R', 'U', 'F'])
const row = (most: number) =>
  fc.array(fc.nat(turns.length - 1), { minLength: 1, maxLength: most }).map((picks) =>
    simplify(
      cube3,
      picks.map((i) => turns[i]),
    ),
  )
const pieces = cube3.pieces.map((_, p) => p)

/** The ways that are told, in their order, for what a sequence does. */
async function built(sequence: readonly Turn[], isExact: boolean, fewerThan = 30) {
  const wanted = { position: must(stateMade(cube3, sequence)), pieces, isExact }
  const told: (readonly Turn[])[] = []
  await builtWays(cube3, wanted, {
    turns,
    fewerThan,
    rest: () => Promise.resolve(false),
    onBetter: (way) => told.push(way),
    does: (way) => does(cube3, way, wanted),
  })
  return { told, wanted }
}

describe('ways that are built of parts', () => {
  it('are at least as short as the commutator that is wished, each better than the one before', async () => {
    await fc.assert(
      fc.asyncProperty(
        row(3),
        row(2),
        fc.boolean(),
        fc.boolean(),
        async (A, B, isExact, isBack) => {
          const [a, b] = isBack ? [B, A] : [A, B]
          const back = (all: readonly Turn[]) => inverseOf(cube3, all)
          const wished = simplify(cube3, [...a, ...b, ...back(a), ...back(b)])
          if (wished.length === 0) return
          const { told, wanted } = await built(wished, isExact)
          const counts = told.map(({ length }) => length)
          expect(counts).toEqual([...counts].sort((x, y) => y - x))
          expect(Math.min(...counts)).toBeLessThanOrEqual(wished.length)
          for (const way of told) expect(does(cube3, way, wanted)).toBe(true)
        },
      ),
      { numRuns: 8 },
    )
  })

  it('may be a part done some times over', async () => {
    const { told } = await built(must(read("R U' R U' R U'")), false)
    expect(Math.min(...told.map(({ length }) => length))).toBeLessThanOrEqual(6)
  })

  it('are none where fewer turns are asked for than any takes', async () => {
    expect((await built(must(read("R U R' U'")), false, 4)).told).toEqual([])
  })
})

const read = (text: string) => readTurns(cube3, text)
