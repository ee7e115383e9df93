'use client'

import { useRouter } from 'next/navigation'
import { useTransition } from 'react'
import { toast } from 'sonner'
import type { Result } from '@/core/result'
import { heard } from '@/ui/heard'
import { Button } from '@/ui/Button'
import { discardBench, discardCopy, forgetPuzzle } from './actions'

type Remove = (id: string) => Promise<Result<unknown>>

const REMOVE = { copy: discardCopy, bench: discardBench, puzzle: forgetPuzzle }

/** Removes something that is damaged; the button itself says what goes with it. */
export function RemoveDamaged({
  kind,
  id,
  words,
}: {
  kind: keyof typeof REMOVE
  id: string
  words: string
}) {
  const router = useRouter()
  const [pending, begin] = useTransition()
  const remove = () =>
    begin(async () => {
      const done = await heard(() => (REMOVE[kind] as Remove)(id))
      if (!done.ok) toast.error(done.problem.sentence)
      router.refresh()
    })
  return (
    <Button weight="wrong" onClick={remove} disabled={pending}>
      {words}
    </Button>
  )
}
