/** In how many words a card speaks. */
import type { CardVoice } from '../settings'
import type { Register } from '../words/lexicon'
import type { RouteStep } from './route'
import type { Trail } from './standing'

/** So often a case is told in full. */
const NEW_TIMES = 2

/** What makes two steps one case: what is done, and the sequence by which. */
const caseOf = ({ kind, algorithm }: RouteStep): string => [kind, ...algorithm].join(' ')

/** @param nth position among all steps of the trail */
export function registerAt({ steps }: Trail, nth: number, cards: CardVoice): Register {
  if (cards !== 'learning') return cards
  const own = caseOf(steps[nth])
  return steps.slice(0, nth).filter((step) => caseOf(step) === own).length < NEW_TIMES
    ? 'full'
    : 'brief'
}
