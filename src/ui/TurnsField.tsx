'use client'

import { useMemo, useState } from 'react'
import { dialectNamed, rewritten, understood, type DialectId } from '@/core/notation/dialect'
import { SMALL_WORDS, smallOf, type SmallMeaning } from '@/core/notation/smallLetters'
import { writeTurns } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { fail, type Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { TextArea } from './Field'

/** Whose turns are typed, on which puzzle. */
export interface Typist {
  readonly settings: Settings
  readonly puzzleId: string
}

/**
 * Turns typed in the solver's dialect, or in the only one that can read them; where a text could mean two things it
 * is asked which. What small letters mean is asked once a puzzle.
 */
export function useTyped(puzzle: Puzzle, { settings, puzzleId }: Typist, first = '') {
  const preferred = settings.readDialect
  const [small, setSmall] = useState<SmallMeaning | undefined>(settings.smallLetters[puzzleId])
  const [trouble, setTrouble] = useState<string>()
  const [text, setText] = useState(() => (first === '' ? '' : rewritten(puzzle, first, preferred)))
  const [chosen, setChosen] = useState<DialectId>()
  const typed = useMemo(
    () => understood(puzzle, text, chosen ?? preferred, small),
    [puzzle, text, chosen, preferred, small],
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
    choose: (dialect: DialectId) => {
      setChosen(dialect)
      const meaning = smallOf(dialect)
      if (!meaning || meaning === small) return
      setSmall(meaning)
      void rememberSmallLetters(puzzleId, meaning).then((kept) =>
        setTrouble(kept.ok ? undefined : kept.problem.sentence),
      )
    },
    /** What small letters mean on this puzzle, where it has been said. */
    small,
    trouble,
  }
}

const NOT_REMEMBERED = fail('away', 'The server does not answer, so this is asked again next time.')

async function rememberSmallLetters(
  puzzleId: string,
  means: SmallMeaning,
): Promise<Result<unknown>> {
  try {
    const answer = await fetch('/api/small-letters', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ puzzleId, means }),
    })
    return answer.status >= 500 ? NOT_REMEMBERED : ((await answer.json()) as Result<unknown>)
  } catch {
    return NOT_REMEMBERED
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
  const { text, typed, preferred, meanings, small, trouble, write, choose } = typing
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
          {small && meanings.some(({ dialects }) => dialects.some(({ id }) => smallOf(id))) && (
            <p className="text-soft">
              {trouble ??
                `On this puzzle small letters mean ${SMALL_WORDS[small]}; Settings can change it.`}
            </p>
          )}
        </fieldset>
      )}
    </div>
  )
}
