import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Positions } from './positions'

describe('positions of a search', () => {
  it('are found again by their keys, each once, however many there are', () => {
    const keys = fc.array(fc.tuple(fc.integer(), fc.integer()), { minLength: 1, maxLength: 6000 })
    fc.assert(
      fc.property(keys, (given) => {
        const positions = new Positions(2)
        const known = new Map<string, number>()
        for (const [i, [high, low]] of given.entries()) {
          positions.add(Uint8Array.of(i % 24, (i >> 5) % 24), i, high, low, i - 1, i % 7)
          const key = `${high | 0} ${low | 0}`
          if (!known.has(key)) known.set(key, i)
        }
        expect(positions.count).toBe(known.size)
        for (const [key, i] of known) {
          const [high, low] = key.split(' ').map(Number)
          const node = positions.at(high, low)
          expect(positions.sumOf(node)).toBe(i)
          expect(positions.rotations[2 * node]).toBe(i % 24)
          expect(positions.turnOf(node)).toBe(i % 7)
          expect([...positions.keyOf(node)]).toEqual([high, low])
        }
      }),
      { numRuns: 20 },
    )
  })
})
