/**
 * What the bench asks of the server. The addresses stay the same from one build of the program to the next,
 * so a page that was open over a restart can still send what it holds.
 */
import type { Entry } from '@/core/coach/rebase'
import { fail, type Result } from '@/core/result'
import type { Variant } from '@/core/schools/school'
import type { BenchEnd, Opened } from '@/server/leftOff'

/** Entries that the page did not have; those that it has sent itself come back as their ids. */
export interface Heard {
  readonly entries: readonly (Entry | Pick<Entry, 'id'>)[]
  readonly stored: boolean
}

const PATIENCE_MS = 15_000

const away = fail('away', 'Merry Lantern does not answer now. What you did is kept on this page.')

/** `away` is the code of whatever may be better later: no line, no server, no database. */
async function ask<T>(path: string, init?: RequestInit): Promise<Result<T>> {
  try {
    const response = await fetch(`/api/bench/${path}`, {
      ...init,
      cache: 'no-store',
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
    if (response.status >= 500) return away
    return (await response.json()) as Result<T>
  } catch {
    return away
  }
}

const post = <T>(path: string, body?: unknown): Promise<Result<T>> =>
  ask(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body ?? {}),
  })

export const sendEntries = (
  sessionId: string,
  after: number,
  entries: readonly Entry[],
): Promise<Result<Heard>> => post(sessionId, { after, entries })

export const entriesAfter = (
  sessionId: string,
  after: number,
): Promise<Result<{ readonly entries: readonly Entry[] }>> => ask(`${sessionId}?after=${after}`)

/** Why nothing more is turned here; null while it is open. */
export const endOf = (sessionId: string): Promise<Result<BenchEnd | null>> =>
  ask(`${sessionId}/end`)

/** Takes up a bench that was left off. */
export const takeUpAgain = (sessionId: string, instead?: string): Promise<Result<Opened>> =>
  post(`${sessionId}/take-up`, { instead })

/** Logs the solve; its id is returned. */
export const finish = (sessionId: string): Promise<Result<string>> => post(`${sessionId}/finish`)

export const chooseSchool = (
  sessionId: string,
  school: string,
  variant: Variant,
): Promise<Result<true>> => post(`${sessionId}/school`, { school, variant })
