import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { Bench } from '@/features/bench/Bench'
import { settingsFor } from '@/core/settings'
import { keptAlgorithms } from '@/server/algorithms'
import { findSession } from '@/server/benchSessions'
import { findCopy } from '@/server/copies'
import { standingBench } from '@/server/damage'
import { isId } from '@/server/id'
import { benchEnd } from '@/server/leftOff'
import { DamagedPage } from '@/app/DamagedPage'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Bench' }

export default async function BenchPage({
  params,
  searchParams,
}: {
  params: Promise<{ sessionId: string }>
  searchParams: Promise<{ sequence?: string | string[]; all?: string | string[] }>
}) {
  const [{ sessionId }, { sequence = '', all }] = await Promise.all([params, searchParams])
  if (!isId(sessionId)) notFound()
  const profileId = await solverId()
  const session = await findSession(profileId, sessionId)
  const copy = session && (await findCopy(profileId, session.copyId))
  if (!session || !copy) notFound()
  const [stood, settings, end, kept] = await Promise.all([
    standingBench(profileId, copy, session, all !== undefined),
    readSettings(profileId),
    session.status === 'open' ? undefined : benchEnd(profileId, sessionId),
    keptAlgorithms(profileId, copy.puzzleId),
  ])
  if (!stood.ok) return <DamagedPage what={copy.name} problem={stood.problem} copyId={copy.id} />
  const { school, variant, startState, scramble } = session
  return (
    <WithOwnPuzzles puzzleId={copy.puzzleId}>
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
          ...stood.value.tail,
          end,
        }}
        settings={settingsFor(settings, copy.puzzleId)}
        named={kept.flatMap(({ name, turns }) => (name === '' ? [] : [{ name, turns }]))}
        sequence={[sequence].flat()[0].slice(0, 4000)}
      />
    </WithOwnPuzzles>
  )
}
