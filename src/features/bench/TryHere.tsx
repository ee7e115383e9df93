'use client'

import Link from 'next/link'
import { useEffect, useMemo, useState } from 'react'
import { tryOut } from '@/core/algorithms/tried'
import { wishHome } from '@/core/algorithms/wish'
import { rewritten } from '@/core/notation/dialect'
import { readTurns } from '@/core/notation/read'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import type { Settings } from '@/core/settings'
import type { State } from '@/core/state'
import type { OwnAlgorithm } from '@/server/algorithms'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Field'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { ownSequences } from './actions'
import { sequenceAt, wishAt } from '@/ui/algorithmAddresses'
import { TurnsField, useTyped } from '@/ui/TurnsField'

/** A sequence on the present position as a preview: what would be lit or lost; taken or left. */
export function TryHere({
  puzzle,
  puzzleId,
  scheme,
  state,
  settings,
  stages,
  first,
  onMake,
}: {
  puzzle: Puzzle
  puzzleId: string
  scheme: Scheme
  state: State
  settings: Settings
  /** Of the school that is followed. */
  stages?: { readonly names: readonly string[]; readonly met: (state: State) => number }
  /** What to begin with, canonical. */
  first: string
  onMake: (names: readonly string[]) => void
}) {
  const typing = useTyped(puzzle, { settings, puzzleId }, readTurns(puzzle, first).ok ? first : '')
  const [own, setOwn] = useState<readonly OwnAlgorithm[]>([])
  useEffect(() => {
    let gone = false
    // Where the server does not answer now, what is typed will do.
    ownSequences(puzzleId).then(
      (found) => !gone && setOwn(found),
      () => undefined,
    )
    return () => {
      gone = true
    }
  }, [puzzleId])
  const turns = must(readTurns(puzzle, typing.typed.turns))
  const home = useMemo(() => wishHome(puzzle, state), [puzzle, state])
  const tried = turns.length > 0 ? tryOut(puzzle, state, turns, stages) : undefined
  return (
    <div className="mt-2 grid gap-2 text-sm">
      {own.length > 0 && (
        <Choice
          label="One of yours"
          options={[
            { value: '', name: 'choose one' },
            ...own.map(({ id, name, turns: text }) => ({
              value: id,
              name: [name, rewritten(puzzle, text, settings.writeDialect)]
                .filter(Boolean)
                .join(': '),
            })),
          ]}
          value=""
          onChange={(event) => {
            const chosen = own.find(({ id }) => id === event.target.value)
            if (chosen) typing.write(rewritten(puzzle, chosen.turns, settings.readDialect))
          }}
        />
      )}
      <TurnsField label="The sequence" typing={typing} />
      {tried?.ok && (
        <PuzzlePicture
          puzzle={puzzle}
          state={tried.value.state}
          scheme={scheme}
          marks={settings.marks}
          label="The puzzle after it"
          className="w-full"
        />
      )}
      {tried && <p role="status">{tried.ok ? tried.value.sentence : tried.problem.sentence}</p>}
      <div className="flex flex-wrap items-center gap-3">
        <Button
          disabled={!tried?.ok}
          onClick={() => {
            onMake(turns.map(({ name }) => name))
            typing.write('')
          }}
        >
          Take it
        </Button>
        {turns.length > 0 && (
          <Link className="underline" href={sequenceAt(puzzleId, typing.typed.turns)}>
            What it does by itself
          </Link>
        )}
        {home !== undefined && (
          <Link className="underline" href={wishAt(puzzleId, home)}>
            Find what leads home from here
          </Link>
        )}
      </div>
    </div>
  )
}
