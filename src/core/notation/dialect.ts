/**
 * All dialects of turn notation, to be read and written. What one means differently from another is never guessed:
 * a text that could be two is given both ways.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, must, type Problem, type Result } from '../result'
import type { DialectId } from './dialectId'
import { CANONICAL, LETTERS, type LettersId } from './letters'
import { readAlgorithm, readTurns } from './read'
import { SMALL, smallOf, withSmallLetters, type SmallMeaning } from './smallLetters'
import { SPOKEN, spokenDialect } from './spoken'
import { readSpoken } from './spoken/spoken'
import { expand } from './tree'
import { writeAlgorithm, writeTurns } from './write'

export type { DialectId }

export interface Dialect {
  readonly id: DialectId
  readonly name: string
  readonly example: string
}

export const DIALECTS: readonly Dialect[] = [...LETTERS, ...SMALL, ...SPOKEN].map(
  ({ id, name, example }) => ({ id, name, example }),
)

export const DIALECT_IDS: readonly DialectId[] = DIALECTS.map(({ id }) => id)

export const dialectNamed = (id: DialectId): Dialect =>
  DIALECTS.find((dialect) => dialect.id === id) as Dialect

/** Whether it writes turns in letters; else in words. */
export const isOfLetters = (id: DialectId): boolean => {
  const spoken = spokenDialect(id)
  return !spoken || spoken.isOfLetters === true
}

/** Reads turns in a dialect; the error points at the character. */
export function readIn(puzzle: Puzzle, text: string, id: DialectId = CANONICAL): Result<Turn[]> {
  const small = smallOf(id)
  if (small) {
    const written = withSmallLetters(puzzle, text, small)
    const read = readTurns(puzzle, written.text)
    if (read.ok || read.problem.at === undefined) return read
    const { at, sentence, code } = read.problem
    return fail(code, sentence, { at: written.at(at) })
  }
  const spoken = spokenDialect(id)
  if (spoken) return readSpoken(puzzle, text, spoken)
  return readTurns(puzzle, text, isLetters(id) ? id : CANONICAL)
}

const isLetters = (id: DialectId): id is LettersId => LETTERS.some((letters) => letters.id === id)

/** A canonical text in a dialect, with its brackets where the dialect has any. @throws if it is none */
export function rewritten(puzzle: Puzzle, canonical: string, id: DialectId): string {
  const algorithm = must(readAlgorithm(puzzle, canonical))
  return isLetters(id) ? writeAlgorithm(algorithm, id) : writeTurns(expand(puzzle, algorithm), id)
}

export interface ReadAs {
  /** All that read the text so. */
  readonly dialects: readonly Dialect[]
  readonly turns: readonly Turn[]
}

/** What a text can be: each meaning with the dialects that give it. None if no dialect can read it. */
export function meaningsOf(puzzle: Puzzle, text: string): ReadAs[] {
  const found = new Map<string, { dialects: Dialect[]; turns: Turn[] }>()
  for (const dialect of DIALECTS) {
    const read = readIn(puzzle, text, dialect.id)
    if (!read.ok || read.value.length === 0) continue
    const key = read.value.map(({ name }) => name).join(' ')
    const known = found.get(key)
    if (known) known.dialects.push(dialect)
    else found.set(key, { dialects: [dialect], turns: read.value })
  }
  return [...found.values()]
}

/** A text as it is understood, with all that it can mean. */
export interface Understood {
  readonly dialect: DialectId
  /** Canonical, with brackets where they were written; empty if there are no turns, or it cannot be read. */
  readonly turns: string
  readonly problem?: Problem
  readonly meanings: readonly ReadAs[]
}

/**
 * Understood in the dialect that the solver has chosen; where that cannot be, in the only one that can, or with small
 * letters as they are meant on this puzzle.
 */
export function understood(
  puzzle: Puzzle,
  text: string,
  id: DialectId,
  small?: SmallMeaning,
): Understood {
  if (text.trim() === '') return { dialect: id, turns: '', meanings: [] }
  const meanings = meaningsOf(puzzle, text)
  const [only, another] = meanings
  const isRead = (asked: DialectId) =>
    meanings.some(({ dialects }) => dialects.some((each) => each.id === asked))
  // All that fall back to plain words read those; the last of them is the plainest.
  const plainest = only && !another ? only.dialects.at(-1)?.id : undefined
  const meant = small && isRead(`small-${small}`) ? (`small-${small}` as const) : undefined
  const dialect = isRead(id) ? id : (plainest ?? meant ?? id)
  if (isLetters(dialect)) {
    const read = readAlgorithm(puzzle, text, dialect)
    if (read.ok) return { dialect, turns: writeAlgorithm(read.value), meanings }
    return { dialect, turns: '', problem: read.problem, meanings }
  }
  const read = readIn(puzzle, text, dialect)
  if (read.ok) return { dialect, turns: writeTurns(read.value), meanings }
  return { dialect, turns: '', problem: read.problem, meanings }
}
