'use client'

import { useState } from 'react'
import { ACTS, DEFAULT_KEYS, keyOf, keyProblem, showKey, type ActId, type Keys } from '@/core/keys'
import { capital } from '@/core/phrases'
import { Button } from '@/ui/Button'

/** Touch an act, then press its new key. Escape leaves it as it was. */
export function KeysChooser({ keys, onChange }: { keys: Keys; onChange: (keys: Keys) => void }) {
  const [waiting, setWaiting] = useState<ActId>()
  const [problem, setProblem] = useState<string>()

  const press = (id: ActId) => (event: React.KeyboardEvent) => {
    if (waiting !== id || ['Tab', 'Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return
    event.preventDefault()
    if (event.key === 'Escape') return setWaiting(undefined)
    const key = keyOf(event)
    const wrong = keyProblem(keys, id, key)
    setProblem(wrong)
    if (wrong) return
    setWaiting(undefined)
    onChange({ ...keys, [id]: key })
  }

  return (
    <>
      <p className="text-sm text-soft">
        Letters of turns stay as they are. Touch a key, then press the one you want; Escape leaves
        it.
      </p>
      <ul className="grid gap-1">
        {ACTS.map(({ id, does }) => (
          <li key={id} className="flex items-center gap-3">
            <span className="grow text-sm">{capital(does)}</span>
            <Button
              className="min-w-28 justify-center"
              aria-label={
                waiting === id
                  ? `Press a key for: ${does}`
                  : `${capital(does)}: ${showKey(keys[id])}`
              }
              weight={waiting === id ? 'attend' : undefined}
              onClick={(event) => {
                // Space and Enter that were taken as keys must not start over.
                if (event.detail === 0 && waiting === id) return
                setProblem(undefined)
                setWaiting(id)
              }}
              onKeyDown={press(id)}
              onKeyUp={(event) => {
                if (event.key === ' ') event.preventDefault()
              }}
              onBlur={() => setWaiting((now) => (now === id ? undefined : now))}
            >
              <span className="turns">{waiting === id ? 'press' : showKey(keys[id])}</span>
            </Button>
          </li>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="text-sm text-rose">
          {problem}
        </p>
      )}
      <div>
        <Button onClick={() => onChange(DEFAULT_KEYS)}>The keys it came with</Button>
      </div>
    </>
  )
}
