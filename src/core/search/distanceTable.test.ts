import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf, inFrame } from '../analysis/frame'
import { tipsOf } from '../analysis/tips'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { isDrawnUniformly, LEAST_TURNS, scramble, scrambledState } from '../scramble/scramble'
import { isSolved, start, turnFreely, writeState } from '../state'
import { after, box, cube2, cube3, stateOf } from '../testing'
import { coordinatesOf } from './coordinates'
import {
  buildDistanceTable,
  distanceOf,
  halfTurnTable,
  shortestSequences,
  UNREACHED,
  type Metric,
} from './distanceTable'

/** States at each distance by a search that knows states only, no coordinates. */
function plainCount(metric: Metric, depth: number): number[] {
  const { turns } = frameOf(cube2)
  const used = turns.filter((turn) => metric === 'half' || turn.amount !== 2)
  const seen = new Set([writeState(start(cube2))])
  const counts = [1]
  let frontier = [start(cube2)]
  for (let distance = 1; distance <= depth; distance++) {
    const next: typeof frontier = []
    for (const state of frontier)
      for (const turn of used) {
        const reached = turnFreely(cube2, state, turn, new Uint8Array(state.length))
        const key = writeState(reached)
        if (seen.has(key)) continue
        seen.add(key)
        next.push(reached)
      }
    counts.push(next.length)
    frontier = next
  }
  return counts
}

describe('the table of all states of the 2x2x2', () => {
  it.each(['half', 'quarter'] as const)('agrees with a plain search, %s turns', (metric) => {
    const table = must(buildDistanceTable(cube2, metric))
    const depth = metric === 'half' ? 6 : 7
    expect(table.counts.slice(0, depth + 1)).toEqual(plainCount(metric, depth))
    // Nothing is left out: 7! arrangements and 3^6 orientations, all reachable.
    const factorial = [1, 2, 3, 4, 5, 6, 7].reduce((a, b) => a * b)
    expect(table.counts.reduce((a, b) => a + b)).toBe(factorial * 3 ** 6)
    expect(table.distances.includes(UNREACHED)).toBe(false)
  })

  it('changes by one at most with every turn, and falls with some', () => {
    const table = halfTurnTable(cube2)
    const { turns } = frameOf(cube2)
    fc.assert(
      fc.property(stateOf(cube2), (state) => {
        const distance = distanceOf(cube2, table, state)
        const next = turns.map((turn) => distanceOf(cube2, table, after(cube2, [turn], state)))
        for (const each of next) expect(Math.abs(each - distance)).toBeLessThanOrEqual(1)
        if (distance > 0) expect(Math.min(...next)).toBe(distance - 1)
      }),
    )
  })

  it('is the same from every hold', () => {
    const table = halfTurnTable(cube2)
    const whole = cube2.turns.filter((turn) => turn.whole)
    fc.assert(
      fc.property(stateOf(cube2), fc.constantFrom(...whole), (state, turn) => {
        expect(distanceOf(cube2, table, after(cube2, [turn], state))).toBe(
          distanceOf(cube2, table, state),
        )
      }),
    )
  })

  it('leads home by the number of turns that it says', () => {
    const table = halfTurnTable(cube2)
    fc.assert(
      fc.property(stateOf(cube2), (given) => {
        const state = inFrame(cube2, given)
        for (const turns of shortestSequences(cube2, table, state, 5)) {
          expect(turns).toHaveLength(distanceOf(cube2, table, state))
          expect(after(cube2, turns, state)).toEqual(start(cube2))
        }
      }),
    )
  })

  it('is refused for a puzzle that is too large', () => {
    const table = buildDistanceTable(box(3, 3, 2), 'half')
    expect(table.ok).toBe(false)
  })
})

describe('coordinates', () => {
  it('number every state of the 2x2x2, and give it back', () => {
    const coordinates = coordinatesOf(cube2)
    fc.assert(
      fc.property(fc.nat(coordinates.size - 1), (index) => {
        expect(coordinates.indexOf(coordinates.stateAt(index))).toBe(index)
      }),
    )
    fc.assert(
      fc.property(stateOf(cube2), (state) => {
        expect(coordinates.stateAt(coordinates.indexOf(state))).toEqual(inFrame(cube2, state))
      }),
    )
  })

  it('have no number for a corner twisted by hand', () => {
    const state = start(cube2)
    const corner = 7
    for (let r = 1; r < 24; r++) {
      if (cube2.place[24 * corner + r] !== corner) continue
      state[corner] = r
      expect(coordinatesOf(cube2).indexOf(state)).toBeNaN()
    }
  })
})

describe('the frame', () => {
  it('is one corner of a 2x2x2 and the core of a 3x3x3', () => {
    expect(cube2.pieces[frameOf(cube2).piece ?? -1].id).toBe('DBL')
    expect(frameOf(cube3).piece).toBeUndefined()
    expect(new Set(frameOf(cube3).turns.map(({ name }) => name[0]))).toEqual(new Set('UDFBRL'))
  })
})

describe('a tetrahedron with tips', () => {
  const tetra = must(puzzleById('tetra-3'))

  it('has 933,120 states without its tips, none more than eleven turns away', () => {
    const { counts } = halfTurnTable(tetra)
    expect(counts.reduce((sum, n) => sum + n, 0)).toBe(933_120)
    expect(counts).toHaveLength(12)
  })

  it('is led home by shortest sequences, tips and all', () => {
    const table = halfTurnTable(tetra)
    const { turns: all } = frameOf(tetra)
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...all), { maxLength: 40 }), (made) => {
        const state = after(tetra, made)
        const [turns] = shortestSequences(tetra, table, state, 1)
        expect(turns).toHaveLength(distanceOf(tetra, table, state))
        expect(turns.length).toBeLessThanOrEqual(15)
        expect(isSolved(tetra, after(tetra, turns, state))).toBe(true)
      }),
      { numRuns: 60 },
    )
  })

  it('is drawn with every tip any way round', () => {
    expect(isDrawnUniformly(tetra)).toBe(true)
    const tip = tipsOf(tetra)[0].piece
    const seen = new Set<number>()
    for (let seed = 0; seed < 30; seed++) {
      const drawn = scramble(tetra, seed)
      const state = scrambledState(tetra, drawn)
      expect(drawn.turns.length).toBeGreaterThanOrEqual(LEAST_TURNS)
      seen.add(state[tip])
    }
    expect(seen.size).toBe(3)
  })
})
