import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parityOf, spanOf } from './invariants'

const problem = fc
  .array(fc.constantFrom(2, 3, 4, 6), { minLength: 1, maxLength: 3 })
  .chain((moduli) => {
    const vector = fc.tuple(...moduli.map((m) => fc.nat(m - 1)))
    return fc.record({
      moduli: fc.constant(moduli),
      vectors: fc.array(vector, { maxLength: 3 }),
      one: vector,
      other: vector,
    })
  })

/** All sums of some vectors, by listing them. */
function listed(vectors: readonly (readonly number[])[], moduli: readonly number[]): Set<string> {
  const found = new Set([moduli.map(() => 0).join()])
  for (const text of found)
    for (const vector of vectors)
      found.add(
        text
          .split(',')
          .map((entry, i) => (Number(entry) + vector[i]) % moduli[i])
          .join(),
      )
  return found
}

describe('the span of vectors', () => {
  it('has as many elements as listing them gives', () => {
    fc.assert(
      fc.property(problem, ({ vectors, moduli }) => {
        expect(Number(spanOf(vectors, moduli).size)).toBe(listed(vectors, moduli).size)
      }),
    )
  })

  it('names two cosets alike if and only if the difference lies in it', () => {
    fc.assert(
      fc.property(problem, ({ vectors, moduli, one, other }) => {
        const { cosetOf } = spanOf(vectors, moduli)
        const difference = one.map((entry, i) => (entry - other[i] + moduli[i]) % moduli[i]).join()
        expect(cosetOf(one) === cosetOf(other)).toBe(listed(vectors, moduli).has(difference))
      }),
      { numRuns: 300 },
    )
  })
})

describe('parity', () => {
  it('is that of the number of pairs in the wrong order', () => {
    const permutation = fc
      .array(fc.double({ noNaN: true }), { minLength: 1, maxLength: 8 })
      .map((keys) =>
        keys
          .map((key, i) => ({ key, i }))
          .sort((a, b) => a.key - b.key || a.i - b.i)
          .map(({ i }) => i),
      )
    fc.assert(
      fc.property(permutation, (to) => {
        const inversions = to.flatMap((a, i) => to.slice(i + 1).filter((b) => b < a)).length
        expect(parityOf(to)).toBe(inversions % 2)
      }),
    )
  })
})
