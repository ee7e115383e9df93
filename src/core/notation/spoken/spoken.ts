/**
 * Dialects in which a turn is a word or several, with commas between. What one cannot say is said in plain words, so
 * that every sequence can be written in each and read back.
 */
import { memoised } from '../../memo'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { fail, ok, type Result } from '../../result'
import { TEXT_LIMIT, TURN_LIMIT } from '../limits'
import { layerPhrase, partsOf, phraseOf } from './phrases'

export type SpokenId = 'number-first' | 'hands' | 'raise-lower' | 'arrows' | 'words'

export interface Spoken {
  readonly id: SpokenId
  readonly name: string
  readonly example: string
  /** A turn by its canonical name; undefined where plain words are needed. */
  readonly says: (name: string) => string | undefined
  /** What it takes for a turn besides, and does not write. */
  readonly reads?: (name: string) => readonly string[]
  /** Its own words stand without commas between them. */
  readonly isOfLetters?: boolean
}

/** A turn in a dialect. */
export const speakTurn = (dialect: Spoken, name: string): string =>
  dialect.says(name) ?? phraseOf(name)

/** Whether a turn is said in letters, which need no commas between them. */
export const isSaidShort = (dialect: Spoken, name: string): boolean =>
  (dialect.isOfLetters ?? false) && dialect.says(name) !== undefined

/** Everything that can be said of a puzzle: in plain words, and by the dialect. */
const saidOf = new WeakMap<Puzzle, Map<string, ReadonlyMap<string, Turn>>>()

function wordsOf(puzzle: Puzzle, dialect: Spoken): ReadonlyMap<string, Turn> {
  const dialects = saidOf.get(puzzle) ?? new Map<string, ReadonlyMap<string, Turn>>()
  saidOf.set(puzzle, dialects)
  const known = dialects.get(dialect.id)
  if (known) return known
  const found = new Map(puzzle.turns.map((turn) => [phraseOf(turn.name), turn]))
  for (const turn of puzzle.turns) {
    const own = dialect.says(turn.name)
    if (own !== undefined) found.set(own, turn)
  }
  for (const turn of puzzle.turns)
    for (const word of dialect.reads?.(turn.name) ?? []) if (!found.has(word)) found.set(word, turn)
  dialects.set(dialect.id, found)
  return found
}

/** A part of a text between commas, without the blanks about it. */
interface Chunk {
  readonly text: string
  readonly at: number
}

function chunksOf(text: string, divider: RegExp): Chunk[] {
  const found: Chunk[] = []
  let at = 0
  for (const part of text.split(divider)) {
    const trimmed = part.trim()
    if (trimmed !== '') found.push({ text: trimmed, at: at + part.indexOf(trimmed) })
    at += part.length + 1
  }
  return found
}

const plainly = (text: string): string =>
  text
    .replace(/[\u2019\u2032\u00b4]/g, "'")
    .replace(/\s+/g, ' ')
    .trim()

/** Reads turns in a spoken dialect; the error names the place of the word. */
export function readSpoken(puzzle: Puzzle, text: string, dialect: Spoken): Result<Turn[]> {
  const long = tooLong(text)
  if (long) return long
  const said = wordsOf(puzzle, dialect)
  const lookUp = (word: string) => said.get(word) ?? said.get(word.toLowerCase())
  const turns: Turn[] = []
  for (const chunk of chunksOf(text, /[,;\n]/)) {
    const whole = lookUp(plainly(chunk.text))
    if (whole) {
      turns.push(whole)
      continue
    }
    const parts = dialect.isOfLetters
      ? chunksOf(chunk.text, /\s/).map((part) => ({ ...part, at: chunk.at + part.at }))
      : [chunk]
    for (const part of parts) {
      const turn = lookUp(plainly(part.text))
      if (!turn) return unknown(puzzle, dialect, part)
      turns.push(turn)
    }
  }
  if (turns.length > TURN_LIMIT)
    return fail('bad-turns', `That is more than ${TURN_LIMIT} turns.`, { at: 0 })
  return ok(turns)
}

const tooLong = (text: string) =>
  text.length > TEXT_LIMIT
    ? fail('bad-turns', `That is more than ${TEXT_LIMIT} characters.`, { at: TEXT_LIMIT })
    : undefined

function unknown(puzzle: Puzzle, dialect: Spoken, { text, at }: Chunk) {
  const shown = text.length > 40 ? `${text.slice(0, 40)}…` : text
  const half = wordsOf(puzzle, dialect).get(`${plainly(text)} half round`)
  const why = half
    ? `that layer can only make half turns here: say '${speakTurn(dialect, half.name)}'`
    : `say it as in '${dialect.example}'`
  return fail(
    'bad-turns',
    `'${shown}' is no turn of this puzzle in the dialect '${dialect.name}': ${why}.`,
    {
      at,
    },
  )
}

/** Words for a layer or a turn, and the turns that they can mean, by canonical names. */
export type Vocabulary = Readonly<Record<string, readonly string[]>>

/** As sequences are told without directions, the right hand turning: up, across, down, across two. */
export const BY_RIGHT_HAND: Vocabulary = {
  up: ['R'],
  down: ["R'"],
  across: ['U', "U'"],
  'across two': ['U2'],
}

/** Most readings that are listed. */
export const READINGS_LIMIT = 4096

const layersSaid = memoised((puzzle: Puzzle): ReadonlyMap<string, readonly Turn[]> => {
  const found = new Map<string, Turn[]>()
  for (const turn of puzzle.turns) {
    const layer = layerPhrase(partsOf(turn.name).grip)
    const known = found.get(layer)
    if (known) known.push(turn)
    else found.set(layer, [turn])
  }
  return found
})

/** Words that may lack their directions: every reading that they can have. */
export function readLoosely(
  puzzle: Puzzle,
  text: string,
  dialect: Spoken,
  vocabulary: Vocabulary = BY_RIGHT_HAND,
): Result<Turn[][]> {
  const long = tooLong(text)
  if (long) return long
  let readings: Turn[][] = [[]]
  for (const chunk of chunksOf(text, /[,;\n]/)) {
    const word = plainly(chunk.text).toLowerCase()
    const sure = wordsOf(puzzle, dialect).get(word)
    const meant = (Object.hasOwn(vocabulary, word) ? vocabulary[word] : []).flatMap(
      (name) => puzzle.turnByName.get(name) ?? [],
    )
    const turns = sure ? [sure] : meant.length > 0 ? meant : layersSaid(puzzle, '').get(word)
    if (!turns) return unknown(puzzle, dialect, chunk)
    if (readings.length * turns.length > READINGS_LIMIT)
      return fail('bad-turns', `There are more than ${READINGS_LIMIT} ways to read this.`, {
        at: chunk.at,
      })
    readings = readings.flatMap((reading) => turns.map((turn) => [...reading, turn]))
  }
  return ok(readings)
}
