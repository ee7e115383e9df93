'use client'

import { AlertDialog } from 'radix-ui'
import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import type { Solver } from '@/server/profiles'
import { Button } from '@/ui/Button'
import { heard } from '@/ui/heard'
import { chooseSolver, otherSolvers } from './actions'
import { channelOfSolvers, goOnAs, tellOthers } from './goOnAs'

/**
 * Stands before a page whose solver is not the chosen one any more, because another page of this browser has gone
 * on as somebody else: whatever were done here would be done to the other's shelf.
 */
export function OtherSolver({ solver }: { solver: Pick<Solver, 'id' | 'nickname'> }) {
  const [chosen, setChosen] = useState<{ readonly id: string; readonly name: string }>()
  useEffect(() => {
    const channel = channelOfSolvers()
    if (!channel) return
    channel.onmessage = async ({ data }: MessageEvent<unknown>) => {
      const id = String(data)
      if (id === solver.id) return setChosen(undefined)
      setChosen({ id, name: 'Another solver' })
      const all = await otherSolvers().catch(() => [])
      const name = all.find((each) => each.id === id)?.nickname
      if (name) setChosen({ id, name })
    }
    return () => channel.close()
  }, [solver.id])
  const stay = async () => {
    const done = await heard(() => chooseSolver(solver.id))
    if (!done.ok) return void toast.error(done.problem.sentence)
    tellOthers(solver.id)
    setChosen(undefined)
  }
  return (
    <AlertDialog.Root open={chosen !== undefined}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <AlertDialog.Content className="fixed left-1/2 top-1/2 z-50 w-[min(94vw,30rem)] -translate-x-1/2 -translate-y-1/2 rounded-lg border border-line bg-surface p-5 shadow-2xl">
          <AlertDialog.Title className="text-xl">
            {chosen?.name} solves in this browser now
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-soft">
            Another window has gone on as somebody else, and this page is {solver.nickname}’s.
          </AlertDialog.Description>
          <div className="mt-4 flex flex-wrap gap-2">
            <Button weight="attend" onClick={() => chosen && goOnAs(chosen.id)}>
              To the other shelf
            </Button>
            <Button onClick={() => void stay()}>Go on as {solver.nickname}</Button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  )
}
