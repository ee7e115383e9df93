'use client'

import { useCallback, useEffect, useRef, useState } from 'react'
import { fail, type Problem, type Result } from '@/core/result'

/** What the server says of a file that it reads. */
interface Told {
  readonly id: string
  readonly state: 'waiting' | 'running' | 'done' | 'refused' | 'stopped'
  readonly share: number
  readonly value?: unknown
  readonly problem?: Problem
}

export interface Importing {
  /** How much is done, 0 to 1; undefined if nothing is under way. */
  readonly share?: number
  /** Whether it waits for others. */
  readonly isWaiting: boolean
  readonly trouble?: string
  readonly begin: (file: File) => void
  readonly cancel: () => void
}

const LOOK_MS = 400

const lost = fail('away', 'The file did not reach the program. Nothing was imported.')

async function ask<T>(path: string, init?: RequestInit): Promise<Result<T>> {
  try {
    const answer = await fetch(`/api/imports${path}`, { cache: 'no-store', ...init })
    return answer.status >= 500 && answer.status !== 503
      ? lost
      : ((await answer.json()) as Result<T>)
  } catch {
    return lost
  }
}

/**
 * Gives a file to the server and watches how far it is; one that is under way when the page is opened is watched
 * too.
 */
export function useImport(
  kind: 'log' | 'backup',
  { found, onDone }: { found?: boolean; onDone: (value: unknown) => void },
): Importing {
  const [told, setTold] = useState<Pick<Told, 'state' | 'share'>>()
  const [trouble, setTrouble] = useState<string>()
  const id = useRef<string>(undefined)
  const done = useRef(onDone)
  useEffect(() => {
    done.current = onDone
  }, [onDone])

  const watch = useCallback(async (watched: string) => {
    id.current = watched
    while (id.current === watched) {
      const heard = await ask<Told>(`/${watched}`)
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
        if (heard.value.state === 'stopped') setTrouble('Stopped. Nothing was imported.')
        if (!['waiting', 'running'].includes(heard.value.state)) break
      }
      await new Promise((wait) => setTimeout(wait, LOOK_MS))
    }
    id.current = undefined
    setTold(undefined)
  }, [])

  useEffect(() => {
    if (found === false) return
    void ask<Told | null>(`?kind=${kind}`).then((heard) => {
      if (heard.ok && heard.value && !id.current) void watch(heard.value.id)
    })
    return () => {
      id.current = undefined
    }
  }, [found, kind, watch])

  const begin = (file: File) => {
    setTrouble(undefined)
    setTold({ state: 'waiting', share: 0 })
    void file
      .text()
      .then((body) => ask<string>(`?kind=${kind}`, { method: 'POST', body }))
      .then((given) => {
        if (given.ok) return watch(given.value)
        setTold(undefined)
        setTrouble(given.problem.sentence)
      })
  }

  /** The watch tells whether it was in time. */
  const cancel = () => {
    if (id.current) void ask<true>(`/${id.current}`, { method: 'DELETE' })
  }

  return { share: told?.share, isWaiting: told?.state === 'waiting', trouble, begin, cancel }
}
