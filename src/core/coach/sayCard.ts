/** The card of a step in words: each part in the hold of the moment that it speaks of. */
import { joinedAs } from '../analysis/joined'
import { placeNamesOf } from '../analysis/placeNames'
import type { Said } from '../claims/claim'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { Lexicon, Register } from '../words/lexicon'
import { say } from '../words/say'
import { textOf, textSpan, turnSpan, type Span } from '../words/span'
import { meetingClaims } from './meetings'
import { holdTurnsOf, ownTurnsOf } from './route'
import { frameOfStep, type Trail } from './standing'

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
  /** What its last turns and the first of the next step are together. */
  readonly joins: Spans
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
  lexicon?: Lexicon,
): CardWords {
  const step = trail.steps[nth]
  const opening = holdTurnsOf(step)
  const frameAt = (turns: number): Rotation => frameOfStep(puzzle, trail, nth, turns)
  const held = frameAt(opening)
  // Of a smaller box it is told as of that one, but for its turns.
  const joined = step.as && joinedAs(puzzle, step.as)
  const told = joined?.small ?? puzzle
  const turns = ownTurnsOf(step).map(({ name }) => name)
  const real = (span: Span): Span => {
    const turn = span.kind === 'turn' ? joined?.small.turnByName.get(span.name) : undefined
    return turn && joined ? turnSpan(joined.turnFor(turn).name) : span
  }
  const spoken = (said: Said | undefined, frame: Rotation) => {
    const spans = say(said ?? [], { puzzle: told, scheme, frame, register, turns }, lexicon)
    return joined ? spans.map(real) : spans
  }
  const { lines = [], hints, halfway } = step
  return {
    lookFor: spoken(step.lookFor, held),
    lines: lines.map(({ says }) => spoken(says, held)),
    hold: spoken(step.hold, held),
    check: spoken(step.check, frameAt(step.turns.length)),
    ifNot: spoken(step.ifNot ?? [{ kind: 'otherwise', what: 'goBack' }], held),
    note: spoken([...(step.note ?? []), ...meetingClaims(step, 'within')], held),
    joins: spoken(meetingClaims(step, 'next'), held),
    halfway: halfway ? spoken(halfway.says, frameAt(halfway.after)) : [],
    nudge: spoken(hints.nudge, held),
    pointer: spoken(
      hints.pointer.length > 0 ? hints.pointer : (lines[0]?.says ?? step.lookFor.slice(0, 1)),
      held,
    ),
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
