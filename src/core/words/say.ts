/** Claims put into words. All English about a step that is told by claims stands in `english/`. */
import type { Said } from '../claims/claim'
import { ENGLISH } from './english/index'
import type { Lexicon, Speaker } from './lexicon'
import { textSpan, type Span } from './span'

export function say(said: Said, speaker: Speaker, lexicon: Lexicon = ENGLISH): Span[] {
  const spans: Span[] = []
  for (let at = 0; at < said.length;) {
    const [next, ...later] = said.slice(at)
    const told = lexicon.first([next, ...later], speaker)
    if (spans.length > 0 && told.spans.length > 0) spans.push(textSpan(' '))
    spans.push(...told.spans)
    at += told.of
  }
  return spans
}
