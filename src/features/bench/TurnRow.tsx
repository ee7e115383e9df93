import type { RouteTurn } from '@/core/coach/route'
import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import type { Puzzle } from '@/core/puzzle/compile'
import { classes } from '@/ui/classes'
import { TurnMark, TurnPicture } from '@/ui/puzzle-picture/TurnPicture'

export type TurnLook = 'done' | 'now' | 'coming'

const LOOKS: Record<TurnLook, string> = {
  done: 'border-transparent text-soft opacity-60',
  now: 'border-amber bg-amber text-on-amber font-bold',
  coming: 'border-line bg-raised text-ink',
}

export function TurnChip({
  name,
  look,
  dialect,
  small = false,
  puzzle,
  marks,
}: {
  name: string
  look: TurnLook
  dialect: DialectId
  small?: boolean
  puzzle: Puzzle
  /** Where pictures of turns are drawn already. */
  marks?: string
}) {
  const turn = dialect === 'arrows' ? puzzle.turnByName.get(name) : undefined
  return (
    <span
      aria-current={look === 'now' ? 'step' : undefined}
      className={classes(
        'turns inline-grid shrink-0 place-items-center rounded border py-0.5 whitespace-nowrap',
        small ? 'min-w-[1.9rem] px-0.5 text-sm' : 'min-w-9 px-1.5 text-base',
        LOOKS[look],
      )}
    >
      {turn ? (
        <>
          {marks === undefined ? (
            <TurnPicture puzzle={puzzle} turn={turn} className="w-24" />
          ) : (
            <TurnMark id={marks} turn={turn} className="w-16" />
          )}
          <span className="sr-only">{writeTurnName(name, dialect)}</span>
        </>
      ) : (
        writeTurnName(name, dialect)
      )}
    </span>
  )
}

interface Part {
  readonly label: string
  readonly turns: readonly (RouteTurn & { at: number })[]
}

const ROLE_WORDS = {
  hold: 'Turn the whole puzzle',
  prepare: 'Prepare',
  setup: 'Set up',
  do: 'Turn',
  undo: 'Undo',
} as const

/** A step's turns in their parts: set up, do (each run by itself), undo. */
export function TurnParts({
  turns,
  done,
  total,
  dialect,
  puzzle,
}: {
  turns: readonly RouteTurn[]
  /** How many of them are done. */
  done: number
  /** Runs in all, where the step repeats something. */
  total?: number
  dialect: DialectId
  puzzle: Puzzle
}) {
  const parts: Part[] = []
  turns.forEach((turn, at) => {
    const label =
      turn.run !== undefined && total !== undefined && total > 1
        ? `Run ${turn.run} of ${total}`
        : ROLE_WORDS[turn.role]
    const last = parts.at(-1)
    const placed = { ...turn, at }
    if (last?.label === label) (last.turns as (RouteTurn & { at: number })[]).push(placed)
    else parts.push({ label, turns: [placed] })
  })
  return (
    <div className="flex flex-wrap gap-x-3 gap-y-1.5">
      {parts.map(({ label, turns: own }, i) => (
        <div key={i}>
          {/* Alone it stands under that very word. */}
          {(parts.length > 1 || label !== ROLE_WORDS.do) && (
            <div className="text-xs text-soft">{label}</div>
          )}
          <div className="flex flex-wrap gap-1">
            {own.map(({ name, at }) => (
              <TurnChip
                key={at}
                name={name}
                dialect={dialect}
                puzzle={puzzle}
                small={parts.length > 1}
                look={at < done ? 'done' : at === done ? 'now' : 'coming'}
              />
            ))}
          </div>
        </div>
      ))}
    </div>
  )
}
