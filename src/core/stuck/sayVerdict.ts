/** A diagnosis in words: one part a sentence, in the hold in which the position was given. */
import type { DialectId } from '../notation/dialectId'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { sentencesOf } from '../words/say'
import type { Diagnosis } from './diagnose'

export const verdictWords = (
  puzzle: Puzzle,
  scheme: Scheme,
  { said, hold }: Pick<Diagnosis, 'said' | 'hold'>,
  dialect?: DialectId,
): string[] => sentencesOf(puzzle, said, { scheme, frame: hold, dialect })
