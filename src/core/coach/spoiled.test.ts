import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { start } from '../state'
import { after, turnsIn } from '../testing'
import { sequence } from '../notation/sequence'
import { outOfRegister, registerWords } from './spoiled'

const tilt = must(puzzleById('tilt-3'))
const cube3 = must(puzzleById('cube-3'))

describe('a centre that is turned out of register', () => {
  it('is named, with how many there are', () => {
    const scheme = tilt.definition.colours
    const words = (text: string) =>
      registerWords(tilt, scheme, start(tilt), after(tilt, sequence(tilt, text).turns))
    expect(words('F')).toMatch(/^The [a-z]+-[a-z]+ centre is out of register now\.$/)
    expect(words('F R')).toMatch(/^The \S+ centre and the \S+ centre are out of register now\.$/)
    expect(words('F R U')).toBe('Three centres are out of register now.')
    expect(words('x')).toBeUndefined()
    expect(words("R U R' U'")).toBeUndefined()
  })

  it('is one that looked right before, and is right again when the turns are taken back', () => {
    fc.assert(
      fc.property(turnsIn(tilt, 12), turnsIn(tilt, 3), (turns, more) => {
        const before = after(tilt, turns)
        const later = after(tilt, more, before)
        const lost = outOfRegister(tilt, before, later)
        const back = outOfRegister(tilt, later, before)
        expect(lost.filter((p) => back.includes(p))).toEqual([])
        expect(new Set([...lost, ...back]).size).toBe(lost.length + back.length)
      }),
      { numRuns: 40 },
    )
  })

  it('is none where no turn of a centre can be seen', () => {
    fc.assert(
      fc.property(turnsIn(cube3, 12), (turns) => {
        expect(outOfRegister(cube3, start(cube3), after(cube3, turns))).toEqual([])
      }),
      { numRuns: 30 },
    )
  })
})
