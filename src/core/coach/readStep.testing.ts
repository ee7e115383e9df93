/** A card as its finished sentences alone: what is still read back from words, beside what is claimed. */
import type { Said } from '../claims/claim'
import type { RouteLine, RouteStep } from './route'

type Line = Omit<RouteLine, 'says'> & { readonly sentence: string }

export interface ReadStep extends Omit<
  RouteStep,
  'lookFor' | 'lines' | 'hold' | 'check' | 'ifNot' | 'note' | 'hints' | 'halfway' | 'others'
> {
  readonly lookFor: string
  readonly lines?: readonly Line[]
  readonly hold: string
  readonly check: string
  readonly note?: string
  readonly hints: { readonly nudge: string; readonly pointer: string }
  readonly others: readonly (Omit<RouteStep['others'][number], 'says'> & {
    readonly sentence: string
  })[]
}

/** The sentences among claims. */
export const sentencesIn = (said: Said): string =>
  said.flatMap((claim) => (claim.kind === 'text' ? [claim.text] : [])).join(' ')

export function readStep(step: RouteStep): ReadStep {
  const { lines, note, hints, others } = step
  return {
    ...step,
    lookFor: sentencesIn(step.lookFor),
    lines: lines?.map(({ says, ...line }) => ({ ...line, sentence: sentencesIn(says) })),
    hold: sentencesIn(step.hold),
    check: sentencesIn(step.check),
    note: note && sentencesIn(note),
    hints: { nudge: sentencesIn(hints.nudge), pointer: sentencesIn(hints.pointer) },
    others: others.map(({ says, ...other }) => ({ ...other, sentence: sentencesIn(says) })),
  }
}

/** The same claims with their sentences changed. */
export const retold = (
  said: Said,
  from: RegExp,
  to: string | ((...parts: string[]) => string),
): Said =>
  said.map((claim) =>
    claim.kind === 'text'
      ? { ...claim, text: claim.text.replace(from, to as (...parts: string[]) => string) }
      : claim,
  )
