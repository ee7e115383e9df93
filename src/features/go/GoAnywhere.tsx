'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useId, useState } from 'react'
import { Sheet } from '@/ui/Sheet'
import { placesToGo, type Place } from './actions'

const SCREENS: readonly Place[] = [
  { href: '/shelf', kind: 'Screen', name: 'Shelf' },
  { href: '/anatomy', kind: 'Screen', name: 'Anatomy' },
  { href: '/schools', kind: 'Screen', name: 'Schools' },
  { href: '/algorithms', kind: 'Screen', name: 'Algorithms' },
  { href: '/log', kind: 'Screen', name: 'Log' },
  { href: '/settings', kind: 'Screen', name: 'Settings' },
]

/** Ctrl+K: type a few letters of where you want to be. */
export function GoAnywhere() {
  const router = useRouter()
  const listId = useId()
  const [open, setOpen] = useState(false)
  const [places, setPlaces] = useState<readonly Place[]>(SCREENS)
  const [trouble, setTrouble] = useState(false)
  const [wanted, setWanted] = useState('')
  const [at, setAt] = useState(0)

  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return
      event.preventDefault()
      setWanted('')
      setAt(0)
      setOpen(true)
      placesToGo().then(
        (found) => {
          setPlaces([...SCREENS, ...found])
          setTrouble(false)
        },
        () => setTrouble(true),
      )
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])

  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = places.filter(({ kind, name }) =>
    words.every((word) => `${kind} ${name}`.toLowerCase().includes(word)),
  )
  const chosen = Math.min(at, found.length - 1)

  const go = (place: Place | undefined) => {
    if (!place) return
    setOpen(false)
    router.push(place.href)
  }

  const move = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (step !== undefined && found.length > 0) {
      event.preventDefault()
      setAt((chosen + step + found.length) % found.length)
    }
    if (event.key === 'Enter') go(found[chosen])
  }

  return (
    <Sheet open={open} onOpenChange={setOpen} title="Go to">
      <input
        role="combobox"
        aria-expanded
        aria-controls={listId}
        aria-activedescendant={found.length > 0 ? `${listId}-${chosen}` : undefined}
        aria-label="A screen, a puzzle or a solve"
        placeholder="A screen, a puzzle or a solve"
        autoFocus
        value={wanted}
        onChange={(event) => {
          setWanted(event.target.value)
          setAt(0)
        }}
        onKeyDown={move}
        className="min-h-9 w-full rounded-md border border-line bg-raised px-3 text-ink placeholder:text-soft"
      />
      {trouble && (
        <p role="alert" className="mt-2 text-sm text-rose">
          The server does not answer; only the screens are listed.
        </p>
      )}
      <ul id={listId} role="listbox" aria-label="Places" className="mt-2 max-h-80 overflow-y-auto">
        {found.map((place, index) => (
          <li
            key={place.href}
            id={`${listId}-${index}`}
            role="option"
            aria-selected={index === chosen}
            onClick={() => go(place)}
            className="flex min-h-9 cursor-pointer items-center gap-3 rounded-md px-3 hover:bg-raised aria-selected:bg-raised aria-selected:text-amber"
          >
            <span className="w-16 text-sm text-soft">{place.kind}</span> {place.name}
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="p-3 text-sm text-soft">Nothing is called that.</p>}
    </Sheet>
  )
}
