'use client'

import { Lock } from 'lucide-react'
import { layersOf, turnsOf } from '@/core/analysis/layers'
import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { blockOf, type State } from '@/core/state'
import { classes } from './classes'

/** Every turn of every layer as a button; those that are blocked now carry a lock. */
export function TurnPad({
  puzzle,
  state,
  dialect,
  onTurn,
  onPoint,
}: {
  puzzle: Puzzle
  state: State
  dialect: DialectId
  onTurn: (turn: Turn) => void
  /** The turn that is pointed at or has the keyboard's focus. */
  onPoint?: (turn: Turn | undefined) => void
}) {
  return (
    <div role="group" aria-label="Turns" className="flex flex-wrap gap-x-2 gap-y-1">
      {layersOf(puzzle).map((grip) => {
        // A half turn beside quarter turns is two of them.
        const own = turnsOf(puzzle, grip)
        const shown = own.length === 3 ? own.filter(({ amount }) => amount !== 2) : own
        const isBlocked = blockOf(puzzle, state, own[0]) !== undefined
        return (
          <span key={grip} className="flex">
            {shown.map((turn) => (
              <button
                key={turn.name}
                type="button"
                aria-label={`${turn.name}${isBlocked ? ', blocked' : ''}`}
                onClick={() => onTurn(turn)}
                onPointerEnter={() => onPoint?.(turn)}
                onPointerLeave={() => onPoint?.(undefined)}
                onFocus={() => onPoint?.(turn)}
                onBlur={() => onPoint?.(undefined)}
                className={classes(
                  'turns inline-flex min-h-9 min-w-9 items-center justify-center gap-1 border px-1.5 text-sm first:rounded-l-md last:rounded-r-md not-first:border-l-0',
                  isBlocked
                    ? 'border-rose text-rose'
                    : 'border-line bg-raised text-ink hover:border-soft',
                )}
              >
                {isBlocked && turn === shown[0] && <Lock size={12} aria-hidden />}
                {writeTurnName(turn.name, dialect)}
              </button>
            ))}
          </span>
        )
      })}
    </div>
  )
}
