import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { whereNow, who } from '../analysis/who'
import { start, turnFreely } from '../state'
import { cube3 } from '../testing'
import { say } from '../words/say'
import { textOf } from '../words/span'
import { halfwayOf } from './halfway'

describe('something to see on the way', () => {
  const scheme = cube3.definition.colours

  const layers = cube3.turns.filter(({ whole }) => !whole)
  const rows = fc
    .tuple(fc.integer({ min: 6, max: 24 }), fc.infiniteStream(fc.constantFrom(...layers)))
    .map(([count, turns]) => [...turns.take(count)])

  it('is told of rows of more than ten turns only, near their middle, and is so', () => {
    let told = 0
    fc.assert(
      fc.property(rows, fc.nat(25), (turns, piece) => {
        const half = halfwayOf(cube3, start(cube3), 0, turns, [piece])
        expect(half === undefined).toBe(turns.length <= 10)
        if (turns.length <= 10) return
        if (!half) throw new Error('nothing is told of a long row')
        told++
        expect(Math.abs(half.after - turns.length / 2)).toBeLessThanOrEqual(4)
        const state = turns
          .slice(0, half.after)
          .reduce((now, turn) => turnFreely(cube3, now, turn, start(cube3)), start(cube3))
        const spoken = say(half.says, {
          ...{ puzzle: cube3, scheme, frame: 0, register: 'full' },
          turns: [],
        })
        expect(textOf(spoken)).toContain(
          `${who(cube3, scheme, piece)} is ${whereNow(cube3, 0, piece, state[piece])}.`,
        )
      }),
      { numRuns: 60 },
    )
    expect(told).toBeGreaterThan(5)
  })

  it('counts layers, not turns of the whole puzzle before them', () => {
    const named = (text: string) =>
      text.split(' ').map((name) => cube3.turnByName.get(name) as never)
    const row = named("x R U R' U' R U R' U' R U R' U'")
    const half = halfwayOf(cube3, start(cube3), 0, row, [0])
    expect(half?.after).toBe(7)
    expect(half?.says[0]).toEqual({ kind: 'afterTurns', count: 6 })
    expect(halfwayOf(cube3, start(cube3), 0, row.slice(0, 11), [0])).toBeUndefined()
  })
})
