import { memo, useId } from 'react'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { start, type State } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { ArrowHead } from '../ArrowHead'
import { bentArrow } from '../puzzle-view/overlay'
import { Facet } from './Facet'
import { flatEye, project } from './project'

/**
 * The pair of windows drawn flat with the arrow of one turn, of the finished puzzle if no state is given. What it says
 * stands in words beside it.
 */
export const TurnPicture = memo(function TurnPicture({
  puzzle,
  state = start(puzzle),
  turn,
  className,
}: {
  puzzle: Puzzle
  state?: State
  turn: Turn
  className?: string
}) {
  const head = useId()
  return (
    <svg viewBox="-1.05 -1.05 4.2 2.1" aria-hidden className={className}>
      <ArrowHead id={head} size={3.6} />
      {WINDOW_NAMES.map((name, i) => {
        const path = bentArrow(puzzle, state, turn, flatEye(puzzle, name))
          .map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x.toFixed(3)} ${y.toFixed(3)}`)
          .join(' ')
        return (
          <g key={name} transform={`translate(${2.1 * i} 0)`} strokeLinejoin="round">
            {project(puzzle, state, puzzle.definition.colours, name).map((facet, at) => (
              <Facet key={at} facet={facet} marks={false} edgeWidth={facet.sticker ? 0.02 : 0.01} />
            ))}
            {path && (
              <>
                <path d={path} fill="none" className="stroke-ground" strokeWidth={0.2} />
                <path
                  d={path}
                  fill="none"
                  className="stroke-ink"
                  strokeWidth={0.1}
                  markerEnd={`url(#${head})`}
                />
              </>
            )}
          </g>
        )
      })}
    </svg>
  )
})
