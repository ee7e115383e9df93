'use client'

import { useCallback, useEffect, useRef, useState } from 'react'
import { fail, type Problem, type Result } from '@/core/result'

/** What the server says of what it does. */
export interface Told {
  readonly id: string
  readonly state: 'arriving' | 'waiting' | 'running' | 'done' | 'refused' | 'stopped'
  readonly share: number
  readonly value?: unknown
  readonly problem?: Problem
}

const LOOK_MS = 400

/** Asks the server; what does not come back is told in the words given. */
export async function ask<T>(path: string, lost: string, init?: RequestInit): Promise<Result<T>> {
  const away = fail('away', lost)
  try {
    const answer = await fetch(path, { cache: 'no-store', ...init })
    return answer.status >= 500 && answer.status !== 503
      ? away
      : ((await answer.json()) as Result<T>)
  } catch {
    return away
  }
}

const LOST = 'The server does not answer.'

/** Watches one thing that the server does, until it has ended. */
export function useJob({
  stopped,
  onDone,
}: {
  /** What is said when it was stopped. */
  stopped: string
  onDone: (value: unknown) => void
}) {
  const [told, setTold] = useState<Partial<Told> & Pick<Told, 'state' | 'share'>>()
  const [trouble, setTrouble] = useState<string>()
  const id = useRef<string>(undefined)
  const done = useRef(onDone)
  useEffect(() => {
    done.current = onDone
  }, [onDone])

  const watch = useCallback(
    async (watched: string) => {
      if (id.current) return
      id.current = watched
      while (id.current === watched) {
        const heard = await ask<Told>(`/api/jobs/${watched}`, LOST)
        if (id.current !== watched) return
        // Without an answer it is asked again: what was sent is there.
        if (!heard.ok && heard.problem.code !== 'away') {
          setTrouble(heard.problem.sentence)
          break
        }
        if (heard.ok) {
          setTold(heard.value)
          if (heard.value.state === 'refused') setTrouble(heard.value.problem?.sentence)
          if (heard.value.state === 'done') done.current(heard.value.value)
          if (heard.value.state === 'stopped') setTrouble(stopped)
          if (!['arriving', 'waiting', 'running'].includes(heard.value.state)) break
        }
        await new Promise((wait) => setTimeout(wait, LOOK_MS))
      }
      id.current = undefined
      setTold(undefined)
    },
    [stopped],
  )

  useEffect(
    () => () => {
      id.current = undefined
    },
    [],
  )

  /** Sends what begins it, and watches it. */
  const begin = useCallback(
    async (send: () => Promise<Result<string>>) => {
      setTrouble(undefined)
      setTold({ state: 'waiting', share: 0 })
      const given = await send()
      if (given.ok) return watch(given.value)
      setTold(undefined)
      setTrouble(given.problem.sentence)
    },
    [watch],
  )

  /** The watch tells whether it was in time. */
  const cancel = () => {
    if (id.current) void ask<true>(`/api/jobs/${id.current}`, LOST, { method: 'DELETE' })
  }

  return {
    /** How much is done, 0 to 1; undefined if nothing is under way. */
    share: told?.share,
    /** Whether it waits for others. */
    isWaiting: told?.state === 'waiting' || told?.state === 'arriving',
    /** Whether the server has it: from then on the page may be left. */
    isTaken: told?.id !== undefined,
    trouble,
    begin,
    watch,
    cancel,
  }
}
