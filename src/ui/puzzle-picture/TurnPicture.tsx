import { memo, useId } from 'react'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { start, type State } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { ArrowHead } from '../ArrowHead'
import { bentArrow } from '../puzzle-view/overlay'
import { Facet } from './Facet'
import { flatEye, project } from './project'

interface Drawn {
  readonly puzzle: Puzzle
  readonly state?: State
  readonly turn: Turn
}

const VIEW = '-1.05 -1.05 4.2 2.1'

/**
 * The pair of windows drawn flat with the arrow of one turn, of the finished puzzle if no state is given. What it says
 * stands in words beside it.
 */
export const TurnPicture = memo(function TurnPicture({
  className,
  ...drawn
}: Drawn & { className?: string }) {
  return (
    <svg viewBox={VIEW} aria-hidden className={className}>
      <Drawing {...drawn} />
    </svg>
  )
})

/** Pictures of turns, each drawn once, to be shown by `TurnMark` in a long row. */
export const TurnMarks = memo(function TurnMarks({
  puzzle,
  id,
  names,
}: {
  puzzle: Puzzle
  id: string
  names: readonly string[]
}) {
  return (
    <svg aria-hidden className="absolute size-0">
      {puzzle.turns
        .filter(({ name }) => names.includes(name))
        .map((turn) => (
          <symbol key={turn.index} id={markId(id, turn)} viewBox={VIEW}>
            <Drawing puzzle={puzzle} turn={turn} />
          </symbol>
        ))}
    </svg>
  )
})

export const TurnMark = ({
  id,
  turn,
  className,
}: {
  id: string
  turn: Turn
  className?: string
}) => (
  // The picture has a view of its own.
  <svg viewBox="0 0 4.2 2.1" aria-hidden className={className}>
    <use href={`#${markId(id, turn)}`} />
  </svg>
)

const markId = (id: string, { index }: Turn): string => `${id}-${index}`

function Drawing({ puzzle, state = start(puzzle), turn }: Drawn) {
  const head = useId()
  return (
    <>
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
    </>
  )
}
