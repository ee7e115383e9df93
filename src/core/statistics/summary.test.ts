import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { totalsOf, type LoggedSolve } from './testing'
import { movingMean, pointsOf, summaryOf } from './summary'

const solve: fc.Arbitrary<LoggedSolve> = fc
  .array(
    fc.record({
      name: fc.constantFrom('a', 'b', 'c'),
      elapsedMs: fc.nat(90_000),
      turnCount: fc.nat(60),
    }),
  )
  .chain((splits) =>
    fc.record({
      splits: fc.constant(splits),
      // The time of a solve is what its stages took, and perhaps a little more.
      elapsedMs: fc.nat(5000).map((rest) => rest + splits.reduce((sum, s) => sum + s.elapsedMs, 0)),
      turnCount: fc.nat(200),
      slips: fc.nat(9),
      hints: fc.nat(9),
      puzzleId: fc.constantFrom('cube-2', 'tetra-3'),
      school: fc.constantFrom(undefined, 'one', 'other'),
    }),
  )

describe('a summary', () => {
  it('of nothing is nothing', () => {
    expect(summaryOf(totalsOf([]))).toBeUndefined()
  })

  it('has shares that never exceed the whole, and means between the extremes', () => {
    fc.assert(
      fc.property(fc.array(solve, { minLength: 1, maxLength: 30 }), (solves) => {
        const summary = summaryOf(totalsOf(solves))
        if (!summary) throw new Error('no summary')
        const shares = summary.stages.reduce((sum, { share }) => sum + share, 0)
        expect(shares).toBeLessThanOrEqual(1 + 1e-9)
        const times = solves.map(({ elapsedMs }) => elapsedMs)
        expect(summary.bestMs).toBe(Math.min(...times))
        expect(summary.meanMs).toBeGreaterThanOrEqual(summary.bestMs)
        expect(summary.meanMs).toBeLessThanOrEqual(Math.max(...times))
        expect(summary.count).toBe(solves.length)
      }),
    )
  })

  it('adds up no stages of different puzzles, and keeps those of different schools apart', () => {
    fc.assert(
      fc.property(fc.array(solve, { minLength: 1, maxLength: 30 }), (solves) => {
        const summary = summaryOf(totalsOf(solves))
        const puzzles = new Set(solves.map(({ puzzleId }) => puzzleId)).size
        expect(summary?.puzzles).toBe(puzzles)
        const named = solves.flatMap(({ school, splits }) =>
          splits.map(({ name }) => `${school} ${name}`),
        )
        const told = (summary?.stages ?? []).map(({ school, name }) => `${school} ${name}`)
        expect([...told].sort()).toEqual(puzzles > 1 ? [] : [...new Set(named)].sort())
      }),
    )
  })

  it('has a best five that no five in a row beat, and none for fewer', () => {
    fc.assert(
      fc.property(fc.array(solve, { minLength: 1, maxLength: 30 }), (solves) => {
        const times = solves.map(({ elapsedMs }) => elapsedMs)
        const { latestFiveMs, bestFiveMs } = summaryOf(totalsOf(solves)) ?? {}
        if (times.length < 5) {
          expect([latestFiveMs, bestFiveMs]).toEqual([undefined, undefined])
          return
        }
        const oldestFirst = movingMean([...times].reverse(), 5).slice(4)
        expect(latestFiveMs).toBeCloseTo(oldestFirst[oldestFirst.length - 1])
        expect(bestFiveMs).toBeCloseTo(Math.min(...oldestFirst))
      }),
    )
  })

  it('names each stage once, however often it was solved', () => {
    const one = {
      elapsedMs: 10,
      turnCount: 3,
      slips: 0,
      hints: 0,
      puzzleId: 'cube-2',
      splits: [{ name: 'a', elapsedMs: 10, turnCount: 3 }],
    }
    expect(summaryOf(totalsOf([one, one]))?.stages).toEqual([
      { name: 'a', meanMs: 10, meanTurns: 3, share: 1 },
    ])
  })
})

describe('points of a chart', () => {
  it('are the solves themselves while they are few, and never more than asked for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(9000), { minLength: 1, maxLength: 70 }),
        fc.integer({ min: 1, max: 40 }),
        (times, most) => {
          const at = times.map((_, i) => 1000 - i)
          const { points, together } = pointsOf(at, times, most)
          expect(points.length).toBeLessThanOrEqual(most)
          if (together === 1)
            expect(points.map(({ elapsedMs }) => elapsedMs)).toEqual([...times].reverse())
          expect(points[0].at).toBe(at[at.length - 1])
          const total = points.reduce((sum, { elapsedMs }, i) => {
            const size = Math.min(together, times.length - i * together)
            return sum + size * elapsedMs
          }, 0)
          expect(total).toBeCloseTo(times.reduce((a, b) => a + b, 0))
        },
      ),
    )
  })
})

describe('a moving mean', () => {
  it('is the value itself for a window of one, and the plain mean at the end of a wide one', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { minLength: 1 }), (values) => {
        expect(movingMean(values, 1)).toEqual(values)
        const mean = values.reduce((a, b) => a + b) / values.length
        expect(movingMean(values, values.length).at(-1)).toBeCloseTo(mean)
        const three = movingMean(values, 3)
        values.forEach((_, i) => {
          const part = values.slice(Math.max(0, i - 2), i + 1)
          expect(three[i]).toBeCloseTo(part.reduce((a, b) => a + b) / part.length)
        })
      }),
    )
  })
})
