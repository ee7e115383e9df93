'use client'

import { useEffect, useRef, useState } from 'react'
import type { Route } from '@/core/coach/route'
import { Button } from '@/ui/Button'
import { ShareBar } from '@/ui/ShareBar'
import { callback, coach } from '@/workers/coach'
import type { PlanRequest } from '@/workers/coach.worker'

const SECONDS = [10, 30, 120]

/** Looks for a shorter way from here for as long as the solver likes, and takes it if there is one. */
export function ShorterWay({
  request,
  left,
  route,
  onFound,
}: {
  request: PlanRequest
  /** Turns that are still to come. */
  left: number
  /** The route on the card, if none of it has been turned yet. */
  route?: Route
  onFound: (route: Route) => void
}) {
  const [seconds, setSeconds] = useState(SECONDS[0])
  const [looking, setLooking] = useState<{ best: number; share: number }>()
  const [told, setTold] = useState<string>()
  const gone = useRef(false)
  useEffect(
    () => () => {
      gone.current = true
      void coach().stopShortening()
    },
    [],
  )

  const look = async () => {
    setTold(undefined)
    setLooking({ best: left, share: 0 })
    const found = await coach().shorten(
      request,
      route,
      seconds,
      callback((best: number, share: number) => {
        // It can arrive after the answer.
        if (!gone.current) setLooking((now) => now && { best: Math.min(best, left), share })
      }),
    )
    if (gone.current) return
    setLooking(undefined)
    if (!found.ok) return setTold(found.problem.sentence)
    const { turnCount } = found.value
    if (turnCount >= left) return setTold('Nothing shorter was found in that time.')
    setTold(`${turnCount} turns from here instead of ${left}. The card shows the shorter way.`)
    onFound(found.value)
  }

  return (
    <section
      aria-label="A shorter way"
      className="grid gap-2 rounded-lg border border-line bg-surface px-4 py-2 text-sm"
    >
      {looking ? (
        <div className="flex items-center gap-3">
          <span className="whitespace-nowrap">
            <span className="turns">{looking.best}</span> turns so far
          </span>
          <ShareBar share={looking.share} label="Time spent looking" />
          <Button onClick={() => void coach().stopShortening()}>Stop</Button>
        </div>
      ) : (
        <div className="flex flex-wrap items-center gap-2">
          <Button onClick={() => void look()}>Look for a shorter way</Button>
          <label className="flex items-center gap-1 text-soft">
            for
            <select
              value={seconds}
              onChange={(event) => setSeconds(Number(event.target.value))}
              className="min-h-9 rounded border border-line bg-raised px-1 text-ink"
            >
              {SECONDS.map((each) => (
                <option key={each} value={each}>
                  {each} seconds
                </option>
              ))}
            </select>
          </label>
        </div>
      )}
      <p role="status" className={told ? '' : 'sr-only'}>
        {told}
      </p>
    </section>
  )
}
