'use client'

import { useEffect, useRef } from 'react'
import type { Bench } from '@/core/coach/bench'
import type { DialectId } from '@/core/notation/dialect'
import { TurnChip } from './TurnRow'

/** The tape of turns, done and to come; the next one is kept in view. */
export function Tape({ bench, dialect }: { bench: Bench; dialect: DialectId }) {
  const now = useRef<HTMLSpanElement>(null)
  const list = useRef<HTMLDivElement>(null)
  const coming = bench.deviation ? [] : (bench.trail?.tape.slice(bench.done) ?? [])
  useEffect(() => {
    const strip = list.current
    if (strip && now.current) strip.scrollLeft = now.current.offsetLeft - strip.clientWidth / 2
  }, [bench.history.length, bench.done])
  return (
    <div
      ref={list}
      role="group"
      aria-label={`Turns: ${bench.history.length} done, ${coming.length} to come`}
      tabIndex={0}
      className="relative flex grow gap-1 overflow-x-auto rounded-md border border-line bg-surface px-2 py-1.5"
    >
      {bench.history.map(({ name }, i) => (
        <TurnChip key={`d${i}`} name={name} look="done" dialect={dialect} />
      ))}
      <span ref={now} aria-hidden className="w-px shrink-0 bg-amber" />
      {coming.map(({ name, step }, i) => (
        <span key={`c${i}`} className="contents">
          {i > 0 && coming[i - 1].step !== step && <span aria-hidden className="w-2 shrink-0" />}
          <TurnChip name={name} look={i === 0 ? 'now' : 'coming'} dialect={dialect} />
        </span>
      ))}
      {bench.history.length + coming.length === 0 && (
        <span className="px-1 text-sm text-soft">No turns yet.</span>
      )}
    </div>
  )
}
