import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { start } from '../state'
import { after, cube3, drawn, gluedCube, turnsIn } from '../testing'
import { homeCount, tryOut } from './tried'
import { readTurns } from '../notation/read'

describe('a sequence tried on a position', () => {
  it('is made, and what looks home is counted, whatever the hold', () => {
    fc.assert(
      fc.property(fc.nat(1000), turnsIn(cube3, 12), (seed, turns) => {
        const state = drawn(cube3, seed)
        const tried = must(tryOut(cube3, state, turns))
        expect(tried.state).toEqual(after(cube3, turns, state))
        const whole = cube3.turns.find(({ whole: is }) => is)
        if (!whole) throw new Error('it cannot be held otherwise')
        expect(homeCount(cube3, after(cube3, [whole], tried.state))).toBe(
          homeCount(cube3, tried.state),
        )
      }),
      { numRuns: 40 },
    )
    expect(homeCount(cube3, start(cube3))).toBe(26)
  })

  it('tells which lanterns it lights or puts out', () => {
    const stages = { names: ['First', 'Second'], met: () => 0 }
    const turns = must(readTurns(cube3, 'R'))
    expect(must(tryOut(cube3, start(cube3), turns, stages)).sentence).toContain('No lantern')
    const counting = {
      ...stages,
      met: (state: Uint8Array) => (state.every((r) => r === 0) ? 2 : 1),
    }
    expect(must(tryOut(cube3, start(cube3), turns, counting)).sentence).toContain(
      'The lantern Second would be put out.',
    )
    const back = must(readTurns(cube3, "R'"))
    expect(must(tryOut(cube3, after(cube3, turns), back, counting)).sentence).toContain(
      'Then 26 of the 26 pieces look home',
    )
  })

  it('says which turn is blocked', () => {
    const turns = must(readTurns(gluedCube, 'R U F L U'))
    const all = Array.from({ length: 12 }, (_, seed) =>
      tryOut(gluedCube, drawn(gluedCube, seed), turns),
    )
    const blocked = all.flatMap((tried) => (tried.ok ? [] : [tried.problem.sentence]))
    expect(blocked.length).toBeGreaterThan(0)
    for (const sentence of blocked) expect(sentence).toMatch(/cut|complete|block/)
  })
})
