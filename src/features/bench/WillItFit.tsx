'use client'

import { useId, useState } from 'react'
import { fitAfter } from '@/core/analysis/fitTest'
import { holdOf } from '@/core/analysis/placements'
import { whereNow, who } from '@/core/analysis/who'
import { readIn, type DialectId } from '@/core/notation/dialect'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { ok } from '@/core/result'
import type { State } from '@/core/state'
import { capital } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'

/** Where a piece would come to rest after some turns, and whether it fits there, before any is made. */
export function WillItFit({
  puzzle,
  scheme,
  state,
  lit,
  marks,
  dialect,
  onMake,
}: {
  puzzle: Puzzle
  scheme: Scheme
  state: State
  /** Index of the piece that is spoken of, if there is one. */
  lit?: number
  marks: boolean
  dialect: DialectId
  onMake: (names: readonly string[]) => void
}) {
  const id = useId()
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<number>()
  const frame = holdOf(puzzle, state) ?? 0
  const shown = puzzle.pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : []))
  const piece = chosen ?? lit ?? shown[0]
  const turns = text.trim() === '' ? ok([]) : readIn(puzzle, text, dialect)
  const tested = turns.ok ? fitAfter(puzzle, scheme, state, turns.value, piece) : turns
  return (
    <div className="mt-2 grid gap-2 text-sm">
      <label className="grid gap-1">
        Which piece
        <select
          value={piece}
          onChange={(event) => setChosen(Number(event.target.value))}
          className="min-h-9 w-full rounded border border-line bg-raised px-2"
        >
          {shown.map((p) => (
            <option key={p} value={p}>
              {capital(who(puzzle, scheme, p))}: now{' '}
              {whereNow(puzzle, frame, p, state[p]) ?? 'outside the finished shape'}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1">
        After which turns
        <input
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-describedby={`${id}-told`}
          aria-invalid={!tested.ok}
          maxLength={200}
          autoComplete="off"
          spellCheck={false}
          className="turns min-h-9 rounded border border-line bg-raised px-2"
        />
      </label>
      {tested.ok && (
        <PuzzlePicture
          puzzle={puzzle}
          state={tested.value.state}
          scheme={scheme}
          marks={marks}
          attend={[puzzle.pieces[piece].id]}
          label=""
          className="w-full"
        />
      )}
      <p id={`${id}-told`} role="status">
        {tested.ok ? tested.value.sentence : tested.problem.sentence}
      </p>
      <div>
        <Button
          disabled={!tested.ok || !turns.ok || turns.value.length === 0}
          onClick={() => {
            if (!turns.ok) return
            onMake(turns.value.map(({ name }) => name))
            setText('')
          }}
        >
          Make these turns
        </Button>
      </div>
    </div>
  )
}
