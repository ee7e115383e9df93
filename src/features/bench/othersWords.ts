import type { BenchEvent } from '@/core/coach/bench'
import type { Entry } from '@/core/coach/rebase'
import { listed } from '@/core/phrases'

/** More turns than this are counted and not listed. */
const LISTED = 6

/**
 * What other pages of this bench have done, and what became of what this page had done meanwhile; nothing
 * where there is nothing to say.
 */
export function othersWords(
  others: readonly Entry[],
  kept: readonly Entry[],
  dropped: readonly Entry[],
): string | undefined {
  const done = others.map(({ event }) => wordsOf(event)).filter((words) => words !== undefined)
  const lost = dropped.map(({ event }) => lostWords(event)).filter((words) => words !== undefined)
  if (done.length === 0 && lost.length === 0) return undefined
  const told = done.length > LISTED ? `made ${done.length} turns` : listed(done)
  const own = kept.some(({ event }) => event.kind === 'turn') ? ' Your turns come after it.' : ''
  return [
    done.length > 0 ? `Another page of this bench ${told}.${own}` : '',
    ...lost.map((words) => `${words}, because the other page was first.`),
  ]
    .join(' ')
    .trim()
}

const wordsOf = (event: BenchEvent): string | undefined =>
  event.kind === 'turn'
    ? `turned ${event.name}`
    : event.kind === 'undo'
      ? 'took a turn back'
      : undefined

const lostWords = (event: BenchEvent): string | undefined =>
  event.kind === 'turn'
    ? `Your ${event.name} is not made`
    : event.kind === 'undo'
      ? 'No turn of yours is taken back'
      : undefined
