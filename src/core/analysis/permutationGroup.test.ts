import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compose, invert, PermutationGroup, type Permutation } from './permutationGroup'

const permutation = (n: number): fc.Arbitrary<Permutation> =>
  fc
    .shuffledSubarray(
      Array.from({ length: n }, (_, i) => i),
      { minLength: n, maxLength: n },
    )
    .map((images) => Uint16Array.from(images))

const groupOf = (n: number, generators: readonly Permutation[], isProven = true) =>
  new PermutationGroup(
    n,
    generators,
    Array.from({ length: n }, (_, i) => i),
    undefined,
    isProven,
  )

/** All elements, made one after the other. */
function closure(n: number, generators: readonly Permutation[]): Map<string, Permutation> {
  const identity = Uint16Array.from({ length: n }, (_, i) => i)
  const found = new Map<string, Permutation>([[identity.join(), identity]])
  for (const element of found.values())
    for (const generator of generators) {
      const next = compose(generator, element)
      if (!found.has(next.join())) found.set(next.join(), next)
    }
  return found
}

const anyGroup = fc
  .integer({ min: 2, max: 6 })
  .chain((n) => fc.tuple(fc.constant(n), fc.array(permutation(n), { maxLength: 3 })))

describe('a permutation group', () => {
  it('has as many elements as its generators make', () => {
    fc.assert(
      fc.property(anyGroup, ([n, generators]) => {
        expect(groupOf(n, generators).order).toBe(BigInt(closure(n, generators).size))
      }),
      { numRuns: 150 },
    )
  })

  it('contains those elements and no others', () => {
    fc.assert(
      fc.property(
        anyGroup.chain(([n, generators]) =>
          fc.tuple(fc.constant(n), fc.constant(generators), permutation(n)),
        ),
        ([n, generators, any]) => {
          const [group, all] = [groupOf(n, generators), closure(n, generators)]
          expect(group.contains(any)).toBe(all.has(any.join()))
          for (const element of all.values()) expect(group.contains(element)).toBe(true)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('tells from any level on how many keep the points before it', () => {
    fc.assert(
      fc.property(anyGroup, ([n, generators]) => {
        const [group, all] = [groupOf(n, generators), [...closure(n, generators).values()]]
        for (let level = 0; level <= n; level++) {
          const keep = all.filter((g) => g.slice(0, level).every((image, i) => image === i))
          expect(group.orderFrom(level)).toBe(BigInt(keep.length))
        }
      }),
      { numRuns: 60 },
    )
  })

  it('is never said to have more than it has when it is not proven', () => {
    fc.assert(
      fc.property(anyGroup, ([n, generators]) => {
        const quick = groupOf(n, generators, false).order
        const proven = groupOf(n, generators).order
        expect(proven % quick).toBe(0n)
      }),
      { numRuns: 100 },
    )
  })

  it('of all permutations of many points is known without listing them', () => {
    const n = 20
    const turn = Uint16Array.from({ length: n }, (_, i) => (i + 1) % n)
    const swap = Uint16Array.from({ length: n }, (_, i) => (i < 2 ? 1 - i : i))
    expect(groupOf(n, [turn, swap]).order).toBe(2432902008176640000n)
  })

  it('has inverses that undo', () => {
    fc.assert(
      fc.property(permutation(8), permutation(8), (a, b) => {
        expect([...compose(a, invert(a))]).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
        expect([...invert(compose(a, b))]).toEqual([...compose(invert(b), invert(a))])
      }),
    )
  })
})
