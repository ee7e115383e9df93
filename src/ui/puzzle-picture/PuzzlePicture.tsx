import { memo } from 'react'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { Facet } from './Facet'
import { EDGE, STEP, VIEW_BOX } from './look'
import { project } from './project'

/** The pair of windows drawn flat, for lists, cases and print. */
export const PuzzlePicture = memo(function PuzzlePicture({
  puzzle,
  state,
  scheme,
  marks = false,
  label,
  attend = [],
  only,
  className,
}: {
  puzzle: Puzzle
  state: State
  scheme: Scheme
  marks?: boolean
  /** For those who do not see it; empty if the words beside it say the same. */
  label: string
  /** Ids of pieces to attend to. */
  attend?: readonly string[]
  /** Piece indices to draw; all if not given. */
  only?: readonly number[]
  className?: string
}) {
  const lit = new Set(puzzle.pieces.flatMap(({ id }, p) => (attend.includes(id) ? [p] : [])))
  return (
    <svg
      viewBox={VIEW_BOX}
      role={label ? 'img' : undefined}
      aria-label={label || undefined}
      aria-hidden={label ? undefined : true}
      className={className}
    >
      {WINDOW_NAMES.map((name, i) => (
        <g key={name} transform={`translate(${STEP * i} 0)`} strokeLinejoin="round">
          {project(puzzle, state, scheme, name)
            .filter(({ piece }) => !only || only.includes(piece))
            .map((facet, at) => {
              const isLit = facet.sticker !== undefined && lit.has(facet.piece)
              return (
                <Facet
                  key={at}
                  facet={facet}
                  marks={marks}
                  edge={isLit ? 'var(--amber)' : undefined}
                  edgeWidth={isLit ? EDGE.lit : facet.sticker ? EDGE.sticker : EDGE.bare}
                />
              )
            })}
        </g>
      ))}
    </svg>
  )
})
