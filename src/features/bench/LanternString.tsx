import type { Route } from '@/core/coach/route'
import { classes } from '@/ui/classes'
import { LanternMark } from '@/ui/LanternMark'

const MOST_NAMED = 7

/** The string of lanterns: one a stage, lit when done. */
export function LanternString({
  route,
  current,
  lit,
}: {
  route: Route
  current: number
  lit: number
}) {
  // Many names would take the room of the puzzle: then only what is being done is written out.
  const isLong = route.stages.length > MOST_NAMED
  return (
    <ol aria-label="Stages" className="flex min-w-0 items-start">
      {route.stages.map((stage, i) => {
        const isLit = i < lit
        const isNow = i === current && !isLit
        return (
          <li
            key={stage.id}
            aria-current={isNow ? 'step' : undefined}
            title={isLong ? stage.name : undefined}
            className={classes(
              'relative flex min-w-0 flex-col items-center px-1 text-center sm:px-4',
              // Where there is little room only the name of what is being done is written out.
              isNow ? 'shrink-0 max-sm:max-w-40' : 'max-sm:shrink',
            )}
          >
            <span aria-hidden className="absolute inset-x-0 top-[3px] h-px bg-line" />
            <span
              className={classes(
                'relative',
                isLit ? 'text-amber' : isNow ? 'text-ink' : 'text-soft',
              )}
            >
              <LanternMark lit={isLit} size={20} />
            </span>
            <span
              className={classes(
                'text-xs leading-tight',
                isNow ? 'font-bold text-ink' : isLong ? 'sr-only' : 'text-soft max-sm:sr-only',
              )}
            >
              {stage.name}
              <span className="sr-only">{isLit ? ', done' : isNow ? ', now' : ', to come'}</span>
            </span>
          </li>
        )
      })}
    </ol>
  )
}
