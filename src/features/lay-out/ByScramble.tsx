'use client'

import { useEffect, useMemo, useState } from 'react'
import { changesShape } from '@/core/analysis/layouts'
import { dialectNamed, readIn } from '@/core/notation/dialect'
import { readTurns } from '@/core/notation/read'
import { writeTurns } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { isInShape } from '@/core/scramble/scramble'
import type { Settings } from '@/core/settings'
import { start, turnAll, turnFreely } from '@/core/state'
import { ShareBar } from '@/ui/ShareBar'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'
import { callback, cancelCoach, coach } from '@/workers/coach'
import { TextArea } from '@/ui/Field'
import type { OnEntry } from './onEntry'

export interface ScrambleEntry {
  readonly scramble: string
  readonly seed?: number
}

/** A scramble, drawn by seed or typed; the real puzzle is turned along, picture by picture. */
export function ByScramble({
  puzzle,
  scheme,
  settings,
  onEntry,
}: {
  puzzle: Puzzle
  scheme: Scheme
  settings: Settings
  onEntry: OnEntry<ScrambleEntry>
}) {
  const [text, setText] = useState('')
  const [seed, setSeed] = useState<number>()
  const [share, setShare] = useState<number>()
  const [trouble, setTrouble] = useState<string>()
  const [position, setPosition] = useState<number>()
  const read = useMemo(
    () => readIn(puzzle, text, settings.readDialect),
    [puzzle, text, settings.readDialect],
  )
  const turns = read.ok ? read.value : []
  const shown = position === undefined ? turns.length : Math.min(position, turns.length)
  const state = turnAll(puzzle, start(puzzle), turns.slice(0, shown))
  const blocked = useMemo(() => {
    const whole = read.ok ? turnAll(puzzle, start(puzzle), read.value) : undefined
    return whole && !whole.ok ? whole.problem.sentence : undefined
  }, [puzzle, read])
  const kept = useMemo(() => (read.ok ? turnsInShape(puzzle, read.value) : 0), [puzzle, read])

  useEffect(() => {
    if (!read.ok) onEntry(undefined, 'The turns cannot be read as far as the marked character.')
    else if (read.value.length === 0) onEntry(undefined, 'Draw or type a scramble first.')
    else if (blocked !== undefined)
      onEntry(undefined, 'A turn of it is blocked; which one, and why, stands above.')
    else onEntry({ scramble: writeTurns(read.value), seed })
  }, [blocked, onEntry, read, seed])

  const draw = async () => {
    setTrouble(undefined)
    setShare(0)
    const drawn = Math.floor(Math.random() * 1_000_000_000)
    const found = await coach().scramble(
      puzzle.definition.id,
      drawn,
      callback((done: number) => setShare((now) => (now === undefined ? now : done))),
    )
    setShare(undefined)
    if (!found.ok) return setTrouble(found.problem.sentence)
    const canonical = readTurns(puzzle, found.value.turns)
    setSeed(drawn)
    setPosition(0)
    setText(canonical.ok ? writeTurns(canonical.value, settings.readDialect) : '')
  }

  const dialect = dialectNamed(settings.readDialect)
  return (
    <div className="grid gap-4 md:grid-cols-[1fr_22rem]">
      <div className="grid content-start gap-3">
        <div className="flex flex-wrap items-center gap-2">
          <Button
            weight={text ? 'plain' : 'attend'}
            onClick={() => void draw()}
            disabled={share !== undefined}
          >
            Give me a scramble
          </Button>
          {share !== undefined && (
            <>
              <ShareBar share={share} label="Counting all states" />
              <Button
                weight="quiet"
                onClick={() => {
                  cancelCoach()
                  setShare(undefined)
                }}
              >
                Cancel
              </Button>
            </>
          )}
          {seed !== undefined && <span className="turns text-sm text-soft">seed {seed}</span>}
        </div>
        <TextArea
          label="Or your own turns"
          hint={`Read as ${dialect.name}: ${dialect.example}. Groups like (R U)3, [S: A] and [A, B] are understood.`}
          rows={3}
          className="turns text-lg"
          spellCheck={false}
          autoCapitalize="off"
          value={text}
          error={read.ok ? undefined : read.problem.sentence}
          onChange={(event) => {
            setText(event.target.value)
            setSeed(undefined)
            setPosition(undefined)
          }}
        />
        {!read.ok && read.problem.at !== undefined && (
          <p aria-hidden className="turns -mt-2 text-sm">
            <span className="text-soft">
              {text.slice(Math.max(0, read.problem.at - 24), read.problem.at)}
            </span>
            <span className="border-b-2 border-rose text-rose">
              {text.slice(read.problem.at, read.problem.at + 1) || '␣'}
            </span>
            <span className="text-soft">
              {text.slice(read.problem.at + 1, read.problem.at + 24)}
            </span>
          </p>
        )}
        {trouble && <Notice kind="wrong">{trouble}</Notice>}
        {blocked && <Notice kind="wrong">{blocked}</Notice>}
        {!blocked && kept < turns.length && (
          <p className="text-sm text-soft">{shapeWords(puzzle, kept)}</p>
        )}
        {turns.length > 0 && (
          <div className="flex flex-wrap items-center gap-2">
            <Button onClick={() => setPosition(0)} disabled={shown === 0}>
              From the start
            </Button>
            <Button onClick={() => setPosition(Math.max(0, shown - 1))} disabled={shown === 0}>
              Back
            </Button>
            <Button
              weight={shown < turns.length ? 'attend' : 'plain'}
              onClick={() => setPosition(shown + 1)}
              disabled={shown === turns.length}
            >
              {shown < turns.length
                ? `Turn ${writeTurns([turns[shown]], settings.writeDialect)}`
                : 'All turned'}
            </Button>
            <span className="text-sm text-soft">
              {shown} of {turns.length}
            </span>
          </div>
        )}
      </div>
      <div className="rounded-lg border border-line p-4" style={{ background: 'var(--glow)' }}>
        {state.ok && (
          <PuzzlePicture
            puzzle={puzzle}
            state={state.value}
            scheme={scheme}
            marks={settings.marks}
            label={`The puzzle after ${shown} turns`}
            className="w-full"
          />
        )}
        <p className="mt-2 text-sm text-soft">
          {!state.ok
            ? 'Nothing to show until the turns can be made.'
            : shown === 0
              ? 'Hold the finished puzzle like this, then turn along.'
              : 'Your puzzle should look like this now, from in front and from behind.'}
        </p>
      </div>
    </div>
  )
}

/** What the turns after the first `kept` do that those do not. */
function shapeWords({ definition }: Puzzle, kept: number): string {
  if (definition.glue.length > 0)
    return kept === 0
      ? 'The first turn moves glued blocks to other places.'
      : `The first ${kept} turns leave the glued blocks where they can lie; from the next on they lie elsewhere.`
  return kept === 0
    ? 'The first turn changes the shape.'
    : `The first ${kept} turns keep the shape; from the next on it changes.`
}

/** How many turns from the start leave every piece in a place of the finished puzzle. */
function turnsInShape(puzzle: Puzzle, turns: readonly Turn[]): number {
  if (!changesShape(puzzle)) return turns.length
  const state = start(puzzle)
  const first = turns.findIndex(
    (turn) => !isInShape(puzzle, turnFreely(puzzle, state, turn, state)),
  )
  return first < 0 ? turns.length : first
}
