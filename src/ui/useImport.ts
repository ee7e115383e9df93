'use client'

import { useEffect } from 'react'
import { ask, useJob, type Told } from './useJob'

export interface Importing {
  /** How much is done, 0 to 1; undefined if nothing is under way. */
  readonly share?: number
  /** Whether it waits for others. */
  readonly isWaiting: boolean
  readonly trouble?: string
  readonly begin: (file: File) => void
  readonly cancel: () => void
}

const LOST = 'The file did not reach the program. Nothing was imported.'

/**
 * Gives a file to the server and watches how far it is; one that is under way when the page is opened is watched
 * too.
 */
export function useImport(
  kind: 'log' | 'backup',
  { found, onDone }: { found?: boolean; onDone: (value: unknown) => void },
): Importing {
  const job = useJob({ stopped: 'Stopped. Nothing was imported.', onDone })
  const { watch } = job
  useEffect(() => {
    if (found === false) return
    void ask<Told | null>(`/api/imports?kind=${kind}`, LOST).then((heard) => {
      if (heard.ok && heard.value) void watch(heard.value.id)
    })
  }, [found, kind, watch])
  return {
    ...job,
    begin: (file) =>
      void job.begin(async () => {
        const body = await file.text()
        return ask<string>(`/api/imports?kind=${kind}`, LOST, { method: 'POST', body })
      }),
  }
}
