/**
 * Two pages on one bench. What the server has stored is the order of things; what a page has done
 * meanwhile comes after it. Here the page's own events are put behind what it did not know of.
 */
import { admit } from './admit'
import { haveSameTurns, turnsMade, type Bench, type BenchEvent } from './bench'

/** An event with a name of its own: stored once, however often it is sent. */
export interface Entry {
  readonly id: string
  readonly event: BenchEvent
}

export interface Rebased {
  readonly bench: Bench
  /** What still holds, in order. */
  readonly kept: readonly Entry[]
  /** What has lost its sense: a turn that is blocked now, a turn taken back that is not the latest any more. */
  readonly dropped: readonly Entry[]
}

/**
 * @param base the bench with everything that is stored
 * @param before the bench that this page took for that
 * @param pending events of this page that are not stored, made after `before`
 */
export function rebase(base: Bench, before: Bench, pending: readonly Entry[]): Rebased {
  let bench = base
  /** How many of the latest turns this page knows as the latest: only these can it mean to take back. */
  let own = haveSameTurns(base, before) ? turnsMade(base) : 0
  const kept: Entry[] = []
  const dropped: Entry[] = []
  for (const entry of pending) {
    const { kind } = entry.event
    const next = kind === 'undo' && own === 0 ? undefined : admit(bench, entry.event)
    if (!next?.ok) {
      dropped.push(entry)
      continue
    }
    if (kind === 'turn') own++
    if (kind === 'undo') own--
    bench = next.value
    kept.push(entry)
  }
  return { bench, kept, dropped }
}
