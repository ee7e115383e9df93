/** English, in two registers: how each kind of claim is said. All sentences about a puzzle stand in this folder. */
import type { ClaimKind, Of } from '../../claims/claim'
import type { Lexicon, Sayers, Speaker } from '../lexicon'
import { textSpan, type Span } from '../span'
import { BOXES } from './boxes'
import { CAPS } from './caps'
import { CASES } from './cases'
import { COUNTS } from './counts'
import { FACTS } from './facts'
import { JOINS } from './joins'
import { EFFECTS } from './effects'
import { ORBITS } from './orbits'
import { PLACES } from './places'
import { REMEDIES } from './remedies'
import { TRIGGERS } from './triggers'
import { VERDICTS } from './verdicts'

const SAYERS: Sayers<ClaimKind> = {
  ...PLACES,
  ...COUNTS,
  ...ORBITS,
  ...CAPS,
  ...BOXES,
  ...JOINS,
  ...REMEDIES,
  ...TRIGGERS,
  ...CASES,
  ...VERDICTS,
  ...EFFECTS,
  ...FACTS,
  text: ({ text }, speaker) => turnsIn(text, speaker),
}

export const ENGLISH: Lexicon = {
  first([claim, ...after], speaker) {
    const say = SAYERS[claim.kind] as Sayers<ClaimKind>[ClaimKind] &
      ((
        ...given: [Of<ClaimKind>, Speaker, typeof after]
      ) => ReturnType<Sayers<ClaimKind>[ClaimKind]>)
    const told = say(claim as never, speaker, after)
    return 'of' in told ? told : { spans: told, of: 1 }
  },
}

/** A turn by its canonical name, standing by itself in a sentence. */
const TURN_IN_TEXT = /(?<![\w'\u2019-])((?:\d+(?:-\d+)?)?[A-Za-z](?:2|')?)(?![\w'\u2019-])/

/** Of a finished sentence the turns that it names, as far as they can be told from words. */
function turnsIn(text: string, { puzzle }: Speaker): Span[] {
  return text.split(TURN_IN_TEXT).flatMap((part, i): Span[] => {
    if (part === '') return []
    return i % 2 === 1 && puzzle.turnByName.has(part)
      ? [{ kind: 'turn', name: part }]
      : [textSpan(part)]
  })
}
