'use client'

import { useRouter } from 'next/navigation'
import { useState, useTransition } from 'react'
import { toast } from 'sonner'
import type { Puzzle } from '@/core/puzzle/compile'
import type { Problem } from '@/core/result'
import type { OwnAlgorithm } from '@/server/algorithms'
import { Button } from '@/ui/Button'
import { Choice, TextField } from '@/ui/Field'
import { heard } from '@/ui/heard'
import { Notice } from '@/ui/Notice'
import { forgetSequence, keepSequence, renameSequence } from './actions'
import { holdName } from '@/core/algorithms/holds'

/** Keeps a sequence among the solver's own, under a name; or changes and forgets one that is kept. */
export function Keep({
  puzzle,
  puzzleId,
  turns,
  kept,
}: {
  puzzle: Puzzle
  puzzleId: string
  /** Canonical. */
  turns: string
  kept?: OwnAlgorithm
}) {
  const router = useRouter()
  const [name, setName] = useState(kept?.name ?? '')
  const [remark, setRemark] = useState(kept?.remark ?? '')
  const [hold, setHold] = useState(kept?.hold ?? 'a')
  const [problem, setProblem] = useState<Problem>()
  const [pending, begin] = useTransition()
  const errorAt = (field: string) => (problem?.field === field ? problem.sentence : undefined)
  const keep = () =>
    begin(async () => {
      const done = await heard<string | true>(() =>
        kept
          ? renameSequence(kept.id, { name, remark })
          : keepSequence(puzzleId, { turns, name, remark, hold }),
      )
      setProblem(done.ok ? undefined : done.problem)
      if (!done.ok) return
      toast(kept ? 'Changed.' : 'Kept among yours.')
      router.refresh()
    })
  const forget = (id: string) =>
    begin(async () => {
      const done = await heard(() => forgetSequence(id))
      if (!done.ok) return setProblem(done.problem)
      toast('Forgotten.')
      router.refresh()
    })
  return (
    <section
      aria-label="Yours"
      className="grid grid-cols-[minmax(0,1fr)] gap-2 rounded-lg border border-line bg-surface px-4 py-3"
    >
      <h2 className="text-base">{kept ? 'One of yours' : 'Keep it among yours'}</h2>
      {problem && !['name', 'remark'].includes(problem.field ?? '') && (
        <Notice kind="wrong">{problem.sentence}</Notice>
      )}
      <TextField
        label="Name"
        maxLength={80}
        value={name}
        error={errorAt('name')}
        onChange={(event) => setName(event.target.value)}
      />
      <TextField
        label="Remark"
        maxLength={2000}
        value={remark}
        error={errorAt('remark')}
        onChange={(event) => setRemark(event.target.value)}
      />
      {!kept && puzzle.holds.length > 1 && (
        <Choice
          label="It starts"
          options={puzzle.holds.map((each) => ({
            value: String.fromCharCode(97 + each),
            name: holdName(puzzle, each),
          }))}
          value={hold}
          onChange={(event) => setHold(event.target.value)}
        />
      )}
      {kept && puzzle.holds.length > 1 && (
        <p className="text-sm text-soft">
          It starts {holdName(puzzle, kept.hold.charCodeAt(0) - 97)}.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={keep} disabled={pending}>
          {kept ? 'Change' : 'Keep it'}
        </Button>
        {kept && (
          <Button weight="wrong" onClick={() => forget(kept.id)} disabled={pending}>
            Forget it
          </Button>
        )}
      </div>
    </section>
  )
}
