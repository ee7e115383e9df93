/** Turns of texts in dialects, and back. */
import { DIALECT_IDS, readIn, type DialectId } from '../core/notation/dialect'
import { SMALL_MEANINGS, withSmallLetters, type SmallMeaning } from '../core/notation/smallLetters'
import { readLoosely } from '../core/notation/spoken/spoken'
import { words } from '../core/notation/spoken/words'
import { writeTurns } from '../core/notation/write'
import type { Puzzle, Turn } from '../core/puzzle/compile'
import { told, Usage } from './failure'
import { type Values } from './options'

/** Words whose directions may be missing. */
const LOOSE = 'words-loose'

const isDialect = (id: string): id is DialectId => (DIALECT_IDS as readonly string[]).includes(id)

/** Turns of a text in a dialect; all that it can mean where directions may be missing. */
export function readAllIn(
  puzzle: Puzzle,
  text: string,
  id: string,
  { small }: Values,
): readonly Turn[][] {
  if (small !== undefined && !SMALL_MEANINGS.some((meaning) => meaning === small))
    throw new Usage(`--small must be ${SMALL_MEANINGS.join(' or ')}`)
  if (id === LOOSE) return told(readLoosely(puzzle, text, words))
  if (!isDialect(id))
    throw new Usage(`--dialect must be one of ${[...DIALECT_IDS, LOOSE].join(', ')}`)
  const letters =
    small === undefined ? text : withSmallLetters(puzzle, text, small as SmallMeaning).text
  return [told(readIn(puzzle, letters, id))]
}

export function writeIn(turns: readonly Turn[], id: string): string {
  if (id === LOOSE) return writeTurns(turns, 'words')
  if (!isDialect(id)) throw new Usage(`--write must be one of ${DIALECT_IDS.join(', ')}`)
  return writeTurns(turns, id)
}
