/** What words without directions can mean, as the solver writes it down: a word a line. */
import { fail, ok, type Result } from '../../result'
import { BY_RIGHT_HAND, type Vocabulary } from './spoken'

/** 'across = U or U'' */
export const writeVocabulary = (vocabulary: Vocabulary): string =>
  Object.entries(vocabulary)
    .map(([word, turns]) => `${word} = ${turns.join(' or ')}`)
    .join('\n')

export const DEFAULT_VOCABULARY = writeVocabulary(BY_RIGHT_HAND)

/** Words that are read, and turns that one can mean. */
const MOST = { words: 60, meanings: 12 }

/** A canonical name of a turn, of whatever puzzle. */
const NAME = /^(\d{1,2}(-\d{1,2})?)?[A-Za-z](2|')?$/

/** The error says in which line, and points at its first character. */
export function readVocabulary(text: string): Result<Vocabulary> {
  const found: Record<string, readonly string[]> = {}
  let at = 0
  for (const [i, line] of text.split('\n').entries()) {
    const begin = at
    at += line.length + 1
    if (line.trim() === '') continue
    const wrong = (why: string) =>
      fail('bad-vocabulary', `Line ${i + 1}: ${why}`, { at: begin, field: 'vocabulary' })
    const [word, meaning, more] = line.split('=').map((part) => part.trim())
    if (!word || !meaning || more !== undefined)
      return wrong("write a word, =, and what it can mean: across = U or U'.")
    if (!/^[a-z][a-z ]*$/i.test(word)) return wrong(`'${word}' must be letters and blanks.`)
    const key = word.toLowerCase()
    if (Object.hasOwn(found, key)) return wrong(`'${key}' stands there twice.`)
    const turns = meaning
      .split(/\s+or\s+/)
      .map((turn) => turn.replace(/[\u2019\u2032\u00b4]/g, "'"))
    const none = turns.find((turn) => !NAME.test(turn))
    if (none !== undefined) return wrong(`'${none}' is no turn: write it as R, R' or R2.`)
    if (turns.length > MOST.meanings)
      return wrong(`a word can mean ${MOST.meanings} turns at most.`)
    found[key] = turns
  }
  return Object.keys(found).length > MOST.words
    ? fail('bad-vocabulary', `At most ${MOST.words} words are read.`, { field: 'vocabulary' })
    : ok(found)
}
