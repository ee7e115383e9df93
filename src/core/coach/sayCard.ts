/** The card of a step in words: each part in the hold of the moment that it speaks of. */
import { joinedAs } from '../analysis/joined'
import { placeNamesOf } from '../analysis/placeNames'
import type { Said } from '../claims/claim'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { Register } from '../words/lexicon'
import { say } from '../words/say'
import { textOf, textSpan, type Span } from '../words/span'
import type { Trail } from './standing'

export type Spans = readonly Span[]

export interface CardWords {
  readonly lookFor: Spans
  /** One a numbered piece. */
  readonly lines: readonly Spans[]
  readonly hold: Spans
  readonly check: Spans
  readonly ifNot: Spans
  readonly note: Spans
  readonly halfway: Spans
  readonly nudge: Spans
  readonly pointer: Spans
  readonly others: readonly Spans[]
  /** Whether hours of the clock stand for places, which is told where letters are explained. */
  readonly usesClock: boolean
}

/** @param nth position among all steps of the trail */
export function sayCard(
  puzzle: Puzzle,
  scheme: Scheme,
  trail: Trail,
  nth: number,
  register: Register = 'full',
): CardWords {
  const step = trail.steps[nth]
  const first = trail.firstOfStep[nth]
  const opening = step.turns.findIndex(({ role }) => role !== 'hold')
  const frameAt = (turns: number): Rotation => trail.frames[first + turns]
  const held = frameAt(opening < 0 ? step.turns.length : opening)
  // Of a smaller box it is told as of that one.
  const told = (step.as && joinedAs(puzzle, step.as)?.small) ?? puzzle
  const spoken = (said: Said | undefined, frame: Rotation) =>
    say(said ?? [], { puzzle: told, scheme, frame, register })
  const { lines = [], hints, halfway } = step
  return {
    lookFor: spoken(step.lookFor, held),
    lines: lines.map(({ says }) => spoken(says, held)),
    hold: spoken(step.hold, held),
    check: spoken(step.check, frameAt(step.turns.length)),
    ifNot: spoken(step.ifNot, held),
    note: spoken(step.note, held),
    halfway: halfway ? spoken(halfway.says, frameAt(halfway.after)) : [],
    nudge: spoken(hints.nudge, held),
    pointer: spoken(hints.pointer, held),
    others: step.others.map(({ says }) => spoken(says, held)),
    usesClock: placeNamesOf(told, held).usesClock,
  }
}

/** What to look for in one: the numbered pieces, or the sentence where there are none. */
export const lookForSpans = ({ lookFor, lines }: CardWords): Spans =>
  lines.length === 0
    ? lookFor
    : lines.flatMap((line, i) => [textSpan(`${i === 0 ? '' : ' '}${i + 1} `), ...line])

/** A card whose words end with a sign, whatever they are. */
export const sentenceOf = (...given: Parameters<typeof textOf>): string => {
  const text = textOf(...given)
  return text === '' || /[.?]$/.test(text) ? text : `${text}.`
}
