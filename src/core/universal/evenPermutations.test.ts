import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { cube3 } from '../testing'
import { baseCyclesOf, disturbedBy } from './baseCycles'
import { hasEvenPermutations } from './evenPermutations'
import { workOf } from './orbitsAtWork'

describe('the even permutations of an orbit', () => {
  it.each(CATALOG_IDS)('are there wherever a base cycle of %s was found', (id) => {
    const puzzle = must(puzzleById(id))
    const all = [...workOf(puzzle).orbits.keys()]
    for (const [orbit, cycles] of baseCyclesOf(puzzle)) {
      const disturbed = disturbedBy(puzzle, cycles, orbit)
      const still = all.filter((other) => other !== orbit && !disturbed.includes(other))
      expect(hasEvenPermutations(puzzle, orbit, still)).toBe(true)
    }
  })

  it('are there for corners and edges of a 3x3x3, each alone', () => {
    const { orbits } = workOf(cube3)
    const large = [...orbits.keys()].filter((o) => orbits[o].orbit.places.length > 1)
    expect(large).toHaveLength(2)
    for (const o of large)
      expect(
        hasEvenPermutations(
          cube3,
          o,
          large.filter((other) => other !== o),
        ),
      ).toBe(true)
  })

  it('are not there for the loose corners of a conjoined half, which a smaller group permutes', () => {
    const twin = must(puzzleById('twin-3'))
    const { orbits } = workOf(twin)
    const all = [...orbits.keys()]
    const none = all.filter((o) => !hasEvenPermutations(twin, o, []))
    expect(none.length).toBeGreaterThan(0)
    for (const o of none) {
      expect(orbits[o].orbit.places.length).toBeGreaterThan(3)
      expect(baseCyclesOf(twin).has(o)).toBe(false)
    }
  })
})
