'use client'

import { useEffect } from 'react'
import { ask, useJob, type Told } from './useJob'

export interface Importing {
  /** How much is done, 0 to 1; undefined if nothing is under way. */
  readonly share?: number
  /** Whether it is on its way to the server. */
  readonly isSent: boolean
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
  kind: 'log' | 'backup' | 'sequences',
  {
    puzzleId,
    found,
    onDone,
  }: { puzzleId?: string; found?: boolean; onDone: (value: unknown) => void },
): Importing {
  const about = puzzleId === undefined ? '' : `&puzzle=${encodeURIComponent(puzzleId)}`
  const address = `/api/imports?kind=${kind}${about}`
  const job = useJob({ stopped: 'Stopped. Nothing was imported.', onDone })
  const { watch } = job
  useEffect(() => {
    if (found === false) return
    void ask<Told | null>(address, LOST).then((heard) => {
      if (heard.ok && heard.value) void watch(heard.value.id)
    })
  }, [found, address, watch])
  return {
    ...job,
    isSent: job.share !== undefined && !job.isTaken,
    begin: (file) =>
      // As it lies on the disk: nobody holds it in memory.
      void job.begin(() => ask<string>(address, LOST, { method: 'POST', body: file })),
  }
}
