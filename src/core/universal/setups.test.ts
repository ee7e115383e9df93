import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { IDENTITY } from '../rotation'
import { inverseOf } from '../state'
import { baseCyclesOf } from './baseCycles'
import { turnsOfCycle } from './cyclesHome'
import { effectOf } from './effects'
import { settledPlan } from './orbitPlan'
import { workOf } from './orbitsAtWork'
import { Setups } from './setups'

const IDS = [
  'cube-2',
  'cube-3',
  'prism-6',
  'box-3x3x5',
  'box-4x4x5',
  'tetra-3',
  'circle-3',
] as const

describe('a cycle with its set-up', () => {
  it.each(IDS)(
    'does what it says, keeps its orbit, and never turns one layer twice in a row: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const plan = settledPlan(puzzle)?.plan
      if (!plan) throw new Error('the puzzle is not served')
      const cycles = baseCyclesOf(puzzle)
      let shortened = 0
      for (const orbit of plan.later) {
        const bases = cycles.get(orbit) ?? []
        const setups = new Setups(puzzle, bases)
        const { places } = workOf(puzzle).orbits[orbit].orbit
        const place = fc.constantFrom(...places)
        fc.assert(
          fc.property(place, place, place, (a, b, c) => {
            if (new Set([a, b, c]).size < 3) return
            for (const found of setups.through(a, b, c).slice(0, 3)) {
              const cycle = setups.cycle(found)
              const turns = turnsOfCycle(puzzle, cycle)
              expect(turns.length).toBe(found.length)
              turns.forEach((turn, i) => {
                if (i > 0) expect(turn.grip).not.toBe(turns[i - 1].grip)
              })
              if (!bases.some((base) => base.turns === cycle.base.turns)) shortened++
              const effect = effectOf(puzzle, turns)
              cycle.places.forEach((from, i) => {
                const to = cycle.places[(i + 1) % 3]
                expect(puzzle.place[24 * from + effect[from]]).toBe(to)
                expect(effect[from]).toBe(cycle.rotations[i])
              })
              for (const other of places)
                if (!cycle.places.includes(other)) expect(effect[other]).toBe(IDENTITY)
              // What is set up is undone, so that it can be owed.
              const back = inverseOf(puzzle, cycle.setup).map(({ name }) => name)
              expect(turns.slice(turns.length - back.length).map(({ name }) => name)).toEqual(back)
            }
          }),
          { numRuns: 25 },
        )
      }
      if (id === 'cube-3') expect(shortened).toBeGreaterThan(0)
    },
  )
})
