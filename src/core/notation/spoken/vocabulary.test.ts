import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from '../../result'
import { cube3 } from '../../testing'
import { readLoosely, type Vocabulary } from './spoken'
import { DEFAULT_VOCABULARY, readVocabulary, writeVocabulary } from './vocabulary'
import { words } from './words'

const refused = (text: string) => {
  const read = readVocabulary(text)
  return read.ok ? '' : `${read.problem.at} ${read.problem.sentence}`
}

describe('words without directions', () => {
  it('are read as they were written', () => {
    const word = fc.stringMatching(/^[a-z]{1,8}( [a-z]{1,8})?$/)
    const turns = fc.uniqueArray(fc.constantFrom('R', "R'", 'U2', '2R', "1-2F'"), { minLength: 1 })
    fc.assert(
      fc.property(
        fc.dictionary(word, turns, { noNullPrototype: true }),
        (vocabulary: Vocabulary) => {
          expect(must(readVocabulary(writeVocabulary(vocabulary)))).toEqual(vocabulary)
        },
      ),
    )
  })

  it('mean what the solver says', () => {
    const own = must(readVocabulary("Pull = L' or L2\n\nacross = U"))
    const readings = must(readLoosely(cube3, 'pull, across', words, own))
    expect(readings.map((turns) => turns.map(({ name }) => name).join(' '))).toEqual([
      "L' U",
      'L2 U',
    ])
    expect(must(readVocabulary(DEFAULT_VOCABULARY)).across).toEqual(['U', "U'"])
  })

  it('are refused with the line and its place', () => {
    expect(refused('up = R\ndown')).toMatch(/^7 Line 2: write a word/)
    expect(refused('up = R\nup = L')).toMatch(/twice/)
    expect(refused('up = sideways')).toMatch(/'sideways' is no turn/)
    expect(refused('u2 = R')).toMatch(/letters/)
  })
})
