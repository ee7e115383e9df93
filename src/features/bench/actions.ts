'use server'

import { revalidatePath } from 'next/cache'
import { fail, ok, type Result } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { fullVariant, type Variant } from '@/core/schools/school'
import { batchSchema } from '@/server/benchEventSchema'
import { appendEvents, changeSchool, findSession } from '@/server/benchSessions'
import { findCopy } from '@/server/copies'
import { finishSession } from '@/server/finish'
import { checked, isId } from '@/server/outside'
import { defaultProfile, readSettings } from '@/server/profiles'

const gone = fail('not-found', 'This bench is not open any more.')

/** Stores events; the number stored so far is returned. */
export async function recordEvents(sessionId: string, batch: unknown): Promise<Result<number>> {
  if (!isId(sessionId)) return gone
  const read = await checked(batchSchema, batch)
  if (!read.ok) return read
  const profileId = await defaultProfile()
  const stored = await appendEvents(profileId, sessionId, read.value.from, read.value.events)
  return stored === undefined ? gone : ok(stored)
}

/** Replays the stored events and logs the solve; its id is returned. */
export async function finish(sessionId: string): Promise<Result<string>> {
  if (!isId(sessionId)) return gone
  const profileId = await defaultProfile()
  const { nickname } = await readSettings(profileId)
  const logged = await finishSession(profileId, sessionId, nickname)
  if (logged.ok) revalidatePath('/', 'layout')
  return logged
}

export async function chooseSchool(
  sessionId: string,
  schoolId: string,
  variant: Variant,
): Promise<Result<true>> {
  if (!isId(sessionId)) return gone
  const profileId = await defaultProfile()
  const session = await findSession(profileId, sessionId)
  const copy = session && (await findCopy(profileId, session.copyId))
  if (!copy) return gone
  const school = schoolNamed(copy.puzzleId, schoolId)
  if (!school.ok) return school
  const full = fullVariant(school.value, variant)
  return (await changeSchool(profileId, sessionId, schoolId, full)) ? ok(true) : gone
}
