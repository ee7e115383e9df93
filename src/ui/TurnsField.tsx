'use client'

import { useMemo, useState } from 'react'
import {
  dialectNamed,
  meaningsOf,
  readAsked,
  readIn,
  rewritten,
  type DialectId,
} from '@/core/notation/dialect'
import { readAlgorithm } from '@/core/notation/read'
import { writeAlgorithm, writeTurns } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import type { Problem } from '@/core/result'
import { TextArea } from './Field'

/** What was typed, as it is read. */
export interface Typed {
  /** Canonical, with brackets if they were written; empty if nothing was, or it cannot be read. */
  readonly turns: string
  readonly problem?: Problem
}

/** Canonical text of what a dialect reads: letters keep their brackets. */
function canonicalOf(puzzle: Puzzle, text: string, dialect: DialectId): Typed {
  if (dialect === 'prime' || dialect === 'i') {
    const read = readAlgorithm(puzzle, text, dialect)
    return read.ok ? { turns: writeAlgorithm(read.value) } : { turns: '', problem: read.problem }
  }
  const read = readIn(puzzle, text, dialect)
  return read.ok ? { turns: writeTurns(read.value) } : { turns: '', problem: read.problem }
}

/**
 * Turns typed in the solver's dialect, or in the only one that can read them; where a text could mean two things it
 * is asked which.
 */
export function useTyped(puzzle: Puzzle, preferred: DialectId, first = '') {
  const [text, setText] = useState(() => (first === '' ? '' : rewritten(puzzle, first, preferred)))
  const [chosen, setChosen] = useState<DialectId>()
  const asked = useMemo(
    () => readAsked(puzzle, text, chosen ?? preferred),
    [puzzle, text, chosen, preferred],
  )
  const dialect = asked.ok ? asked.value.dialect.id : (chosen ?? preferred)
  const typed = useMemo(
    () => (text.trim() === '' ? { turns: '' } : canonicalOf(puzzle, text, dialect)),
    [puzzle, text, dialect],
  )
  const meanings = useMemo(() => meaningsOf(puzzle, text), [puzzle, text])
  return {
    text,
    typed,
    dialect,
    preferred,
    /** Everything that the text can mean, where that is more than one thing. */
    meanings: meanings.length > 1 ? meanings : [],
    write: (next: string) => {
      setText(next)
      setChosen(undefined)
    },
    choose: setChosen,
  }
}

export function TurnsField({
  label,
  typing,
  hint,
}: {
  label: string
  typing: ReturnType<typeof useTyped>
  hint?: string
}) {
  const { text, typed, dialect, preferred, meanings, write, choose } = typing
  const { name, example } = dialectNamed(preferred)
  const at = typed.problem?.at
  return (
    <div className="grid gap-2">
      <TextArea
        label={label}
        hint={hint ?? `Read as ${name}: ${example}. Another dialect is found by itself.`}
        rows={2}
        className="turns text-lg"
        spellCheck={false}
        autoCapitalize="off"
        maxLength={4000}
        value={text}
        error={typed.problem?.sentence}
        onChange={(event) => write(event.target.value)}
      />
      {at !== undefined && (
        <p aria-hidden className="turns -mt-1 text-sm">
          <span className="text-soft">{text.slice(Math.max(0, at - 24), at)}</span>
          <span className="border-b-2 border-rose text-rose">{text.slice(at, at + 1) || '␣'}</span>
          <span className="text-soft">{text.slice(at + 1, at + 24)}</span>
        </p>
      )}
      {!typed.problem && dialect !== preferred && meanings.length === 0 && (
        <p className="text-sm text-soft">
          Read as {dialectNamed(dialect).name}: <span className="turns">{typed.turns}</span>
        </p>
      )}
      {meanings.length > 0 && (
        <fieldset className="grid gap-1 rounded-md border border-amber px-3 py-2 text-sm">
          <legend className="px-1">This can be read in more than one way. Which is meant?</legend>
          {meanings.map(({ dialects, turns }) => (
            <label key={dialects[0].id} className="flex min-h-8 items-center gap-2">
              <input
                type="radio"
                name={`${label}-dialect`}
                className="size-4 accent-[var(--amber)]"
                checked={!typed.problem && dialects.some(({ id }) => id === dialect)}
                onChange={() => choose(dialects[0].id)}
              />
              <span className="turns">{writeTurns(turns)}</span>
              <span className="text-soft">{dialects[0].name}</span>
            </label>
          ))}
        </fieldset>
      )}
    </div>
  )
}
