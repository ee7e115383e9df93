'use client'

import { useEffect, useState } from 'react'
import { Button } from '@/ui/Button'
import { coach } from '@/workers/coach'
import type { PlanRequest, StartChoice } from '@/workers/coach.worker'

/** Which colour to start with: by turns, with what is right already. */
export function StartChooser({
  request,
  base,
  onChoose,
}: {
  request: PlanRequest
  base: string
  onChoose: (base: string) => void
}) {
  const [open, setOpen] = useState(false)
  const [choices, setChoices] = useState<readonly StartChoice[]>()
  const [trouble, setTrouble] = useState<string>()
  useEffect(() => {
    if (!open) return
    void coach()
      .starts({ ...request, base: undefined })
      .then((result) =>
        result.ok ? setChoices(result.value) : setTrouble(result.problem.sentence),
      )
  }, [open, request])
  return (
    <details
      className="rounded-lg border border-line bg-surface px-4 py-2 text-sm"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer text-soft">Start with another colour</summary>
      {trouble && <p role="alert">{trouble}</p>}
      {!choices && !trouble && <p>Counting.</p>}
      <ul className="mt-1">
        {choices?.map((choice) => (
          <li key={choice.base} className="flex items-center gap-2">
            <span className="grow">
              {choice.colour}: {choice.turns} turns, {choice.right} right already
            </span>
            {choice.base === base ? (
              <span className="px-3 text-amber">chosen</span>
            ) : (
              <Button weight="quiet" onClick={() => onChoose(choice.base)}>
                Take it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </details>
  )
}
