'use client'

import { Link2 } from 'lucide-react'
import { useEffect, useId, useMemo, useRef } from 'react'
import { latestTurns, turnsMade, type Bench } from '@/core/coach/bench'
import { meetingsOn, type Meeting } from '@/core/coach/meetings'
import { writeTurnName } from '@/core/notation/write'
import type { DialectId } from '@/core/notation/dialect'
import { TurnMarks } from '@/ui/puzzle-picture/TurnPicture'
import { TurnChip } from './TurnRow'

/** A tape of more is not looked at. */
const SHOWN = 300

/** The tape of turns, done and to come; the next one is kept in view. */
export function Tape({ bench, dialect }: { bench: Bench; dialect: DialectId }) {
  const now = useRef<HTMLSpanElement>(null)
  const list = useRef<HTMLDivElement>(null)
  // How a step is held is told on its card; here stand the turns of layers.
  const coming = bench.deviation
    ? []
    : (bench.trail?.tape ?? []).flatMap((turn, at) =>
        at >= bench.done && turn.role !== 'hold' ? [{ ...turn, at }] : [],
      )
  const { puzzle, trail } = bench
  const made = turnsMade(bench)
  const shown = latestTurns(bench, SHOWN)
  const meetings = useMemo(() => (trail ? meetingsOn(puzzle, trail) : []), [puzzle, trail])
  const togetherWords = ({ first, second, one }: Meeting) => {
    const [a, b] = [first, second].map((at) => writeTurnName(trail?.tape[at].name ?? '', dialect))
    return one
      ? `${a} and ${b} are together ${writeTurnName(one.name, dialect)}`
      : `${a} and ${b} cancel`
  }
  const marks = useId()
  const inPictures = dialect === 'arrows'
  // The same turns are drawn once, however often the tape changes.
  const written = inPictures
    ? [...new Set([...shown, ...coming].map(({ name }) => name))].sort().join(' ')
    : ''
  const names = useMemo(() => written.split(' '), [written])
  const chip = { puzzle, dialect, ...(inPictures ? { marks } : {}) }
  useEffect(() => {
    const strip = list.current
    if (strip && now.current) strip.scrollLeft = now.current.offsetLeft - strip.clientWidth / 2
  }, [made, bench.done])
  return (
    <div
      ref={list}
      role="group"
      aria-label={`Turns: ${made} done, ${coming.length} to come`}
      tabIndex={0}
      className="relative flex grow gap-1 overflow-x-auto rounded-md border border-line bg-surface px-2 py-1.5"
    >
      {inPictures && <TurnMarks puzzle={puzzle} id={marks} names={names} />}
      {made > shown.length && (
        <span className="shrink-0 self-center px-1 text-sm whitespace-nowrap text-soft">
          {made - shown.length} earlier
        </span>
      )}
      {shown.map(({ name }, i) => (
        <TurnChip key={`d${made - shown.length + i}`} name={name} look="done" {...chip} />
      ))}
      <span ref={now} aria-hidden className="w-px shrink-0 bg-amber" />
      {coming.map(({ name, step, at }, i) => (
        <span key={`c${i}`} className="contents">
          {i > 0 && coming[i - 1].step !== step && (
            <Border
              words={meetings
                .filter(({ first, second }) => first >= bench.done && first < at && second >= at)
                .map(togetherWords)
                .join(', ')}
            />
          )}
          <TurnChip name={name} look={i === 0 ? 'now' : 'coming'} {...chip} />
        </span>
      ))}
      {made + coming.length === 0 && <span className="px-1 text-sm text-soft">No turns yet.</span>}
    </div>
  )
}

/** Between two steps: a gap, or a link where turns of both are one or none. */
function Border({ words }: { words: string }) {
  if (words === '') return <span aria-hidden className="w-2 shrink-0" />
  return (
    <span role="img" aria-label={words} title={words} className="grid shrink-0 place-items-center">
      <Link2 aria-hidden className="size-4 text-amber" />
    </span>
  )
}
