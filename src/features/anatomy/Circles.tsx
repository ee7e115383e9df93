'use client'

import { useRouter } from 'next/navigation'
import { settingId, settingOf } from '@/core/catalog/setting'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { classes } from '@/ui/classes'

/** Which circles turn with their face. Another setting is another puzzle, with its own address. */
export function Circles({
  definition,
  copyId,
}: {
  definition: PuzzleDefinition
  /** The copy that is looked at, whose name and colours stay. */
  copyId?: string
}) {
  const router = useRouter()
  const setting = settingOf(definition)
  if (!setting) return null
  const locked = setting.filter((face) => face.locked).map(({ name }) => name)
  return (
    <fieldset className="flex flex-wrap items-center gap-1">
      <legend className="sr-only">Circles that are locked to their face</legend>
      <span aria-hidden className="mr-1 text-sm text-soft">
        Circle locked
      </span>
      {setting.map(({ name, label, locked: isLocked }) => (
        <button
          key={name}
          type="button"
          aria-pressed={isLocked}
          aria-label={`${label} circle locked`}
          onClick={() =>
            router.push(
              `/anatomy/${settingId(
                definition.id,
                isLocked ? locked.filter((other) => other !== name) : [...locked, name],
              )}${copyId ? `?copy=${copyId}` : ''}`,
            )
          }
          className={classes(
            'min-h-9 rounded-md border px-2 text-sm',
            isLocked ? 'border-amber text-amber' : 'border-line bg-raised',
          )}
        >
          {label}
        </button>
      ))}
    </fieldset>
  )
}
