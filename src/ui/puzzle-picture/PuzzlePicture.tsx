import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { markInk, MARK_PATHS } from '../marks'
import { markTransform, outlinePath, project } from './project'

/** The pair of windows drawn flat, for lists, cases and print. */
export function PuzzlePicture({
  puzzle,
  state,
  scheme,
  marks = false,
  label,
  attend = [],
  className,
}: {
  puzzle: Puzzle
  state: State
  scheme: Scheme
  marks?: boolean
  label: string
  /** Ids of pieces to attend to. */
  attend?: readonly string[]
  className?: string
}) {
  return (
    <svg viewBox="-1.05 -1.05 4.2 2.1" role="img" aria-label={label} className={className}>
      {WINDOW_NAMES.map((name, i) => (
        <g key={name} transform={`translate(${2.1 * i} 0)`}>
          {project(puzzle, state, scheme, name).map((sticker, at) => (
            <g key={at}>
              <path
                d={outlinePath(sticker.edge)}
                fill="#10131a"
                stroke={attend.includes(sticker.piece) ? 'var(--amber)' : '#10131a'}
                strokeWidth={attend.includes(sticker.piece) ? 0.05 : 0.03}
                strokeLinejoin="round"
              />
              <path d={outlinePath(sticker.inner)} fill={sticker.shade} />
              {marks && (
                <path
                  d={MARK_PATHS[sticker.mark]}
                  fill={markInk(sticker.shade)}
                  transform={markTransform(sticker)}
                />
              )}
            </g>
          ))}
        </g>
      ))}
    </svg>
  )
}
