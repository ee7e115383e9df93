import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { readTurns } from './read'
import { withSmallLetters } from './smallLetters'

const cube4 = must(puzzleById('cube-4'))
const named = (text: string, puzzle = cube4) =>
  must(readTurns(puzzle, text))
    .map(({ name }) => name)
    .join(' ')

describe('small letters', () => {
  it('mean the inner layer, or the outer two', () => {
    expect(named(withSmallLetters(cube4, "r U l' x f2", 'inner').text)).toBe("2R U 2L' x 2F2")
    expect(named(withSmallLetters(cube4, "r U l' x f2", 'wide').text)).toBe("1-2R U 1-2L' x 1-2F2")
  })

  it('mean the tips where there are some', () => {
    const tetra = must(puzzleById('tetra-3'))
    expect(withSmallLetters(tetra, "u R l'", 'wide').text).toBe("u R l'")
  })

  it('leave every place to be found in the text as it was', () => {
    const letters = fc.constantFrom(...'RUFrufl xyz'.split(''))
    fc.assert(
      fc.property(
        fc.array(letters),
        fc.constantFrom('inner' as const, 'wide' as const),
        (list, meaning) => {
          const text = list.join('')
          const made = withSmallLetters(cube4, text, meaning)
          for (let i = 0; i < made.text.length; i++) {
            const before = text[made.at(i)]
            expect([before, before.toUpperCase(), '2', 'w']).toContain(made.text[i])
          }
          expect(made.at(made.text.length)).toBe(text.length)
        },
      ),
    )
  })
})
