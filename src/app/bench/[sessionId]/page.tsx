import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { Bench } from '@/features/bench/Bench'
import { entriesOf, findSession } from '@/server/benchSessions'
import { findCopy } from '@/server/copies'
import { standingBench } from '@/server/damage'
import { isId } from '@/server/outside'
import { DamagedPage } from '@/app/DamagedPage'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { defaultProfile, readSettings } from '@/server/profiles'

export const metadata: Metadata = { title: 'Bench' }

export default async function BenchPage({
  params,
  searchParams,
}: {
  params: Promise<{ sessionId: string }>
  searchParams: Promise<{ sequence?: string | string[] }>
}) {
  const [{ sessionId }, { sequence = '' }] = await Promise.all([params, searchParams])
  if (!isId(sessionId)) notFound()
  const profileId = await defaultProfile()
  const session = await findSession(profileId, sessionId)
  const copy = session && (await findCopy(profileId, session.copyId))
  if (!session || !copy) notFound()
  const [entries, settings] = await Promise.all([entriesOf(sessionId), readSettings(profileId)])
  const stood = standingBench(
    copy,
    session,
    entries.map(({ event }) => event),
  )
  if (!stood.ok) return <DamagedPage what={copy.name} problem={stood.problem} copyId={copy.id} />
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
          entries,
        }}
        settings={settings}
        sequence={[sequence].flat()[0].slice(0, 4000)}
      />
    </WithOwnPuzzles>
  )
}
