import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { Bench } from '@/features/bench/Bench'
import { eventsOf, findSession } from '@/server/benchSessions'
import { findCopy } from '@/server/copies'
import { isId } from '@/server/outside'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Bench' }

export default async function BenchPage({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params
  if (!isId(sessionId)) notFound()
  const profileId = await defaultProfile()
  const session = await findSession(profileId, sessionId)
  const copy = session && (await findCopy(profileId, session.copyId))
  if (!session || !copy) notFound()
  const [events, settings] = await Promise.all([eventsOf(sessionId), readSettings(profileId)])
  const { school, variant, startState, scramble } = session
  return (
    <WithOwnPuzzles>
      <Bench
        key={sessionId}
        given={{
          sessionId,
          copyId: copy.id,
          puzzleId: copy.puzzleId,
          copyName: copy.name,
          scheme: copy.scheme,
          school,
          variant,
          startState,
          scramble,
          events,
        }}
        settings={settings}
      />
    </WithOwnPuzzles>
  )
}
