'use client'

import { useCallback, useEffect, useRef, useState } from 'react'

/** A page that is hidden for longer is not being looked at: the time does not count. */
const LONG_MS = 60_000

export interface BenchClock {
  /** Milliseconds on the bench, without those in which the clock stood. */
  readonly elapsedMs: () => number
  readonly isPaused: boolean
  readonly pause: () => void
  readonly goOn: () => void
}

/**
 * @param beforeMs what earlier pages have counted
 * @param isOver whether it has stopped for good
 */
export function useClock(beforeMs: number, isOver: boolean): BenchClock {
  const [isPaused, setPaused] = useState(false)
  const ran = useRef(beforeMs)
  const since = useRef<number>(undefined)

  const elapsedMs = useCallback(
    () =>
      Math.round(
        ran.current + (since.current === undefined ? 0 : performance.now() - since.current),
      ),
    [],
  )
  const pause = useCallback(() => {
    ran.current = elapsedMs()
    since.current = undefined
    setPaused(true)
  }, [elapsedMs])
  const goOn = useCallback(() => {
    since.current ??= performance.now()
    setPaused(false)
  }, [])

  useEffect(() => {
    if (isOver) {
      ran.current = elapsedMs()
      since.current = undefined
      return
    }
    goOn()
    let hiddenAt: number | undefined
    const onChange = () => {
      if (document.visibilityState === 'hidden') {
        hiddenAt = performance.now()
        return
      }
      const hidden = hiddenAt === undefined ? 0 : performance.now() - hiddenAt
      hiddenAt = undefined
      if (since.current !== undefined && hidden > LONG_MS) since.current += hidden
    }
    document.addEventListener('visibilitychange', onChange)
    return () => document.removeEventListener('visibilitychange', onChange)
  }, [elapsedMs, goOn, isOver])

  return { elapsedMs, isPaused, pause, goOn }
}
