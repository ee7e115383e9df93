import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readTurns } from '../notation/read'
import { mirror } from '../notation/rewrite'
import { must } from '../result'
import { sameState, start } from '../state'
import { after, cube2, stateOf, turnsIn } from '../testing'
import { findAlgorithm } from './algorithmSearch'
import { distanceOf, halfTurnTable } from './distanceTable'
import { buildGoalTable, goalDistance } from './goalTable'
import { CHEAPEST_TURN, handCost, turnCost } from '../notation/handCost'
import { doSequence, join, repeated, sequence, sequenceOf } from '../notation/sequence'

const read = (text: string) => must(readTurns(cube2, text))
const outer = cube2.turns.filter(({ grip }) => /^[UDFBRL]$/.test(cube2.grips[grip].name))

describe('the cost in the hand', () => {
  it('is never below the cheapest turn, and adds up over turns', () => {
    fc.assert(
      fc.property(turnsIn(cube2), (turns) => {
        const layers = turns.filter((turn) => !turn.whole)
        const least = layers.reduce((sum, turn) => sum + turnCost(turn), 0)
        expect(handCost(layers)).toBeGreaterThanOrEqual(least - 1e-6)
        for (const turn of layers) expect(turnCost(turn)).toBeGreaterThanOrEqual(CHEAPEST_TURN)
      }),
    )
  })

  it('is for the left hand what it is for the right in a mirror', () => {
    fc.assert(
      fc.property(turnsIn(cube2), (given) => {
        const turns = given.filter(({ grip }) => /^[UDFBRLxyz]$/.test(cube2.grips[grip].name))
        expect(handCost(mirror(cube2, turns), 'left')).toBeCloseTo(handCost(turns), 6)
      }),
    )
  })

  it('prefers a longer sequence that flows, and counts a re-grip', () => {
    expect(handCost(read("R U R' U'"))).toBeLessThan(handCost(read('B D B')))
    // Three quarters the same way: the hand must let go once.
    const plain = read('R U R U R').reduce((sum, turn) => sum + turnCost(turn), 0)
    expect(handCost(read('R U R U R'))).toBeGreaterThan(plain)
    expect(handCost(read("R U R' U R"))).toBeCloseTo(plain)
  })
})

describe('a goal table', () => {
  const tracked = [7, 5]
  const table = buildGoalTable(cube2, tracked, outer, (rotations) =>
    rotations.every((r) => r === 0),
  )

  it('is a lower bound of the distance of the whole, and exact for what it tracks', () => {
    fc.assert(
      fc.property(stateOf(cube2), (state) => {
        const distance = goalDistance(table, state)
        const next = outer.map((turn) => goalDistance(table, after(cube2, [turn], state)))
        for (const each of next) expect(Math.abs(each - distance)).toBeLessThanOrEqual(1)
        if (distance > 0) expect(Math.min(...next)).toBe(distance - 1)
        else for (const piece of tracked) expect(state[piece]).toBe(0)
      }),
    )
  })

  it('has no more placements than two pieces have', () => {
    const reached = table.distances.filter((distance) => distance !== 255).length
    expect(reached).toBe(24 * 21)
  })
})

describe('the search for an algorithm', () => {
  it('finds one as short as the table of all states says, without slack', () => {
    const all = halfTurnTable(cube2)
    const turns = cube2.turns.filter(({ name }) => /^[URF]/.test(name) && !/w/.test(name))
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...turns), { maxLength: 5 }), (scramble) => {
        const from = after(cube2, scramble)
        const found = findAlgorithm(
          {
            puzzle: cube2,
            turns,
            lowerBound: (state) => distanceOf(cube2, all, state),
            meets: (state) => sameState(state, start(cube2)),
            maxTurns: 6,
            slack: 0,
          },
          from,
        )
        expect(found).toHaveLength(distanceOf(cube2, all, from))
        expect(after(cube2, found ?? [], from)).toEqual(start(cube2))
      }),
      { numRuns: 30 },
    )
  })

  it('finds nothing where nothing is short enough', () => {
    const none = findAlgorithm(
      {
        puzzle: cube2,
        turns: outer,
        lowerBound: () => 0,
        meets: () => false,
        maxTurns: 2,
        slack: 0,
      },
      start(cube2),
    )
    expect(none).toBeUndefined()
  })
})

describe('a tabulated sequence', () => {
  it('does what its turns do, joined and repeated', () => {
    fc.assert(
      fc.property(
        turnsIn(cube2, 8),
        turnsIn(cube2, 8),
        fc.nat(5),
        stateOf(cube2),
        (a, b, n, state) => {
          const [first, second] = [sequenceOf(cube2, a), sequenceOf(cube2, b)]
          expect(doSequence(join(cube2, first, second), state)).toEqual(
            after(cube2, [...a, ...b], state),
          )
          const times = Array.from({ length: n }, () => a).flat()
          expect(doSequence(repeated(cube2, first, n), state)).toEqual(after(cube2, times, state))
        },
      ),
    )
  })

  it('is read once', () => {
    expect(sequence(cube2, "R U R'")).toBe(sequence(cube2, "R U R'"))
  })
})
