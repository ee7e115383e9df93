'use client'

import { useMemo, useState } from 'react'
import { dialectNamed, rewritten, understood, type DialectId } from '@/core/notation/dialect'
import { writeTurns } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { TextArea } from './Field'

/**
 * Turns typed in the solver's dialect, or in the only one that can read them; where a text could mean two things it
 * is asked which.
 */
export function useTyped(puzzle: Puzzle, preferred: DialectId, first = '') {
  const [text, setText] = useState(() => (first === '' ? '' : rewritten(puzzle, first, preferred)))
  const [chosen, setChosen] = useState<DialectId>()
  const typed = useMemo(
    () => understood(puzzle, text, chosen ?? preferred),
    [puzzle, text, chosen, preferred],
  )
  return {
    text,
    typed,
    preferred,
    /** Everything that the text can mean, where that is more than one thing. */
    meanings: typed.meanings.length > 1 ? typed.meanings : [],
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
  const { text, typed, preferred, meanings, write, choose } = typing
  const { dialect } = typed
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
