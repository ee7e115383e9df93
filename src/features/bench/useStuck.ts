'use client'

import { useCallback, useEffect, useState } from 'react'
import { callback, coach } from '@/workers/coach'
import type { Stuck, StuckRequest } from '@/workers/coach.worker'

/** In the address, so that a reload or a link shows it again. */
const PARAMETER = 'stuck'

export interface StuckControls {
  readonly isOpen: boolean
  readonly toggle: () => void
  /** Undefined while it is being worked out. */
  readonly stuck?: Stuck
  readonly share: number
  readonly problem?: string
}

/** What the position on the bench is, worked out while the panel is open. */
export function useStuck(request: StuckRequest): StuckControls {
  const [isOpen, setOpen] = useState(false)
  const [found, setFound] = useState<{ key: string; stuck?: Stuck; problem?: string }>()
  const [share, setShare] = useState(0)
  const key = JSON.stringify(request)

  useEffect(() => setOpen(new URLSearchParams(location.search).has(PARAMETER)), [])

  const toggle = useCallback(() => {
    setOpen((open) => {
      const address = new URL(location.href)
      if (open) address.searchParams.delete(PARAMETER)
      else address.searchParams.set(PARAMETER, '')
      history.replaceState(history.state, '', address)
      return !open
    })
  }, [])

  const isKnown = found?.key === key
  useEffect(() => {
    if (!isOpen || isKnown) return
    let isStale = false
    setShare(0)
    void coach()
      .stuck(
        JSON.parse(key) as StuckRequest,
        callback((done: number) => {
          if (!isStale) setShare(done)
        }),
      )
      .then((result) => {
        if (isStale) return
        setFound(
          result.ok ? { key, stuck: result.value } : { key, problem: result.problem.sentence },
        )
      })
    // Closing it, or turning on, only drops the answer: the worker may have a plan to finish too, and
    // the tables that it builds serve that as well.
    return () => {
      isStale = true
    }
  }, [isKnown, isOpen, key])

  return {
    isOpen,
    toggle,
    share,
    stuck: isKnown ? found.stuck : undefined,
    problem: isKnown ? found.problem : undefined,
  }
}
