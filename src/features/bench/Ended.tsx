'use client'

import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import type { BenchEnd } from '@/server/leftOff'
import { Button, LinkButton } from '@/ui/Button'
import { LeaveOff, type Running } from '@/ui/LeaveOff'
import { Notice } from '@/ui/Notice'
import { takeUpAgain } from './benchServer'

/** A bench on which nothing more is turned: why, and where to go on. */
export function Ended({ sessionId, end }: { sessionId: string; end: BenchEnd }) {
  const router = useRouter()
  const [running, setRunning] = useState<Running>()
  const [trouble, setTrouble] = useState<string>()
  const [pending, begin] = useTransition()
  const takeUp = (instead?: string) =>
    begin(async () => {
      setRunning(undefined)
      const taken = await takeUpAgain(sessionId, instead)
      if (!taken.ok) return setTrouble(taken.problem.sentence)
      if ('running' in taken.value) return setRunning(taken.value.running)
      // Opened anew, so that everything begins from what is kept.
      window.location.assign(`/bench/${sessionId}`)
    })
  const when = end.endedAt ? ` on ${new Date(end.endedAt).toLocaleDateString('en-GB', DAY)}` : ''
  return (
    <section
      aria-label="Left off"
      role="status"
      className="grid gap-3 rounded-lg border border-line bg-surface p-5"
    >
      <h2 className="text-xl">{end.status === 'aside' ? 'Left off' : 'Closed'}</h2>
      <p>
        {end.status === 'aside'
          ? `This solve was left off${when}, when the puzzle was laid out anew. You can look at it; to turn on, take it up again.`
          : `This solve was ended${when}, so nothing more is turned here.`}
      </p>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
      {running && (
        <LeaveOff
          running={running}
          onLeaveOff={() => takeUp(running.id)}
          onClose={() => setRunning(undefined)}
        />
      )}
      <div className="flex flex-wrap gap-2">
        {end.now && end.now !== sessionId && (
          <LinkButton weight="attend" href={`/bench/${end.now}`}>
            Where it stands now
          </LinkButton>
        )}
        {end.solve && <LinkButton href={`/log/${end.solve}`}>See it in the log</LinkButton>}
        {end.status === 'aside' && (
          <Button disabled={pending} onClick={() => takeUp()}>
            Take it up again
          </Button>
        )}
        <Button weight="quiet" onClick={() => router.push('/shelf')}>
          To the shelf
        </Button>
      </div>
    </section>
  )
}

const DAY = { day: 'numeric', month: 'long' } as const
