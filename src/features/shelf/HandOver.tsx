'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useState, useTransition } from 'react'
import { toast } from 'sonner'
import type { Problem } from '@/core/result'
import type { Copy } from '@/server/copies'
import type { Solver } from '@/server/profiles'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Field'
import { heard } from '@/ui/heard'
import { handCopyOver, takers } from './actions'

/** The way of a copy to another solver; nothing is shown where there is no other. */
export function HandOver({ copy, onDone }: { copy: Copy; onDone: () => void }) {
  const router = useRouter()
  const [others, setOthers] = useState<readonly Pick<Solver, 'id' | 'nickname'>[]>([])
  const [to, setTo] = useState('')
  const [problem, setProblem] = useState<Problem>()
  const [pending, begin] = useTransition()
  useEffect(() => {
    let isGone = false
    takers()
      .then((all) => {
        if (!isGone) setOthers(all)
      })
      // Without an answer there is nobody to hand it to.
      .catch(() => undefined)
    return () => {
      isGone = true
    }
  }, [])
  if (others.length === 0) return null
  const give = () =>
    begin(async () => {
      const done = await heard(() => handCopyOver(copy.id, to))
      if (!done.ok) return setProblem(done.problem)
      toast(`${copy.name} stands on ${done.value.nickname}’s shelf now.`)
      onDone()
      router.refresh()
    })
  return (
    <section className="mt-5 grid gap-2 border-t border-line pt-4">
      <h3 className="text-base">Hand it over</h3>
      <p className="text-sm text-soft">
        It goes with its remarks, care and benches. Your solves stay in your log.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <div className="min-w-0 grow basis-48">
          <Choice
            label="To"
            value={to}
            error={problem?.sentence}
            options={[
              { value: '', name: 'choose who gets it' },
              ...others.map(({ id, nickname }) => ({ value: id, name: nickname })),
            ]}
            onChange={(event) => setTo(event.target.value)}
          />
        </div>
        <Button onClick={give} disabled={pending || to === ''}>
          Hand over
        </Button>
      </div>
    </section>
  )
}
