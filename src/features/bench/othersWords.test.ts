import { describe, expect, it } from 'vitest'
import type { BenchEvent } from '@/core/coach/bench'
import type { Entry } from '@/core/coach/rebase'
import { othersWords } from './othersWords'

const entries = (...events: Partial<BenchEvent>[]): Entry[] =>
  events.map((event, i) => ({ id: `${i}`, event: { atMs: 0, ...event } as BenchEvent }))
const R: Partial<BenchEvent> = { kind: 'turn', name: 'R' }

describe('what another page did', () => {
  it('is told where there is something to tell', () => {
    expect(othersWords(entries({ kind: 'hint' }, { kind: 'pass' }), [], [])).toBeUndefined()
    expect(othersWords(entries(R, { kind: 'undo' }), [], [])).toBe(
      'Another page of this bench turned R and took a turn back.',
    )
    expect(othersWords(entries(R), entries(R), [])).toBe(
      'Another page of this bench turned R. Your turns come after it.',
    )
    expect(othersWords(entries(R), [], entries({ kind: 'undo' }, R, { kind: 'route' }))).toBe(
      'Another page of this bench turned R. No turn of yours is taken back, because the other page was first. Your R is not made, because the other page was first.',
    )
    expect(othersWords(entries(...Array<Partial<BenchEvent>>(9).fill(R)), [], [])).toBe(
      'Another page of this bench made 9 turns.',
    )
  })
})
