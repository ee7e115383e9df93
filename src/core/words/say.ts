/** Claims put into words. All English about a puzzle that is told by claims stands in `english/`. */
import type { Said } from '../claims/claim'
import { ENGLISH } from './english/index'
import type { DialectId } from '../notation/dialectId'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, type Rotation } from '../rotation'
import type { Lexicon, Speaker } from './lexicon'
import { textOf, textSpan, type Span } from './span'

/** Sentence by sentence. */
export function sayEach(said: Said, speaker: Speaker, lexicon: Lexicon = ENGLISH): Span[][] {
  const all: Span[][] = []
  for (let at = 0; at < said.length;) {
    const [next, ...later] = said.slice(at)
    const told = lexicon.first([next, ...later], speaker)
    if (told.spans.length > 0) all.push([...told.spans])
    at += told.of
  }
  return all
}

export const say = (said: Said, speaker: Speaker, lexicon?: Lexicon): Span[] =>
  sayEach(said, speaker, lexicon).flatMap((spans, i) =>
    i === 0 ? spans : [textSpan(' '), ...spans],
  )

/** Of a position by itself: in the colours and the hold that are given, or as the finished puzzle has them. */
export const sentencesOf = (
  puzzle: Puzzle,
  said: Said,
  as: { readonly scheme?: Scheme; readonly frame?: Rotation; readonly dialect?: DialectId } = {},
): string[] => {
  const { scheme = puzzle.definition.colours, frame = IDENTITY } = as
  const spoken = sayEach(said, { puzzle, scheme, frame, register: 'full', turns: [] })
  return spoken.map((spans) => textOf(spans, as.dialect))
}
