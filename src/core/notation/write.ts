/** Writes turns and algorithms in a dialect. */
import type { Puzzle, Turn } from '../puzzle/compile'
import type { DialectId } from './dialectId'
import { CANONICAL, lettersOf, type LettersId } from './letters'
import { smallOf, withSmallLetter } from './smallLetters'
import { spokenDialect } from './spoken'
import { isSaidShort, speakTurn } from './spoken/spoken'
import type { Algorithm, Node } from './tree'

/** One turn by its canonical name, in a dialect. */
export function writeTurnName(name: string, dialect: DialectId = CANONICAL): string {
  const small = smallOf(dialect)
  if (small) return withSmallLetter(name, small)
  const spoken = spokenDialect(dialect)
  if (spoken) return speakTurn(spoken, name)
  return name.endsWith("'") ? name.slice(0, -1) + lettersOf(dialect as LettersId).back : name
}

/** Turns by their canonical names, in a row: with commas where words stand. */
export function writeNames(names: readonly string[], dialect: DialectId = CANONICAL): string {
  const spoken = spokenDialect(dialect)
  return names.reduce((text, name, i) => {
    const written = writeTurnName(name, dialect)
    if (i === 0) return written
    const isShort = !spoken || (isSaidShort(spoken, name) && isSaidShort(spoken, names[i - 1]))
    return `${text}${isShort ? ' ' : ', '}${written}`
  }, '')
}

export const writeTurns = (turns: readonly Turn[], dialect: DialectId = CANONICAL): string =>
  writeNames(
    turns.map(({ name }) => name),
    dialect,
  )

/** With its brackets, in letters. */
export const writeAlgorithm = (algorithm: Algorithm, dialect: LettersId = CANONICAL): string =>
  algorithm.map((node) => writeNode(node, dialect)).join(' ')

function writeNode(node: Node, dialect: LettersId): string {
  const write = (part: Algorithm) => writeAlgorithm(part, dialect)
  switch (node.kind) {
    case 'turn':
      return writeTurnName(node.turn.name, dialect)
    case 'group':
      return `(${write(node.body)})${node.times === 1 ? '' : node.times}${node.inverse ? lettersOf(dialect).back : ''}`
    case 'conjugate':
      return `[${write(node.setup)}: ${write(node.body)}]`
    case 'commutator':
      return `[${write(node.first)}, ${write(node.second)}]`
  }
}

/** A turn by its canonical name, standing by itself in a sentence. */
const TURN_IN_TEXT = /(?<![\w'\u2019-])(?:\d+(?:-\d+)?)?[A-Za-z](?:2|')?(?![\w'\u2019-])/g

/** A sentence with the turns that it names in a dialect; words that look like none of the puzzle's turns stay. */
export const withTurns = (puzzle: Puzzle, text: string, dialect: DialectId): string =>
  dialect === CANONICAL
    ? text
    : text.replace(TURN_IN_TEXT, (name) =>
        puzzle.turnByName.has(name) ? writeTurnName(name, dialect) : name,
      )
