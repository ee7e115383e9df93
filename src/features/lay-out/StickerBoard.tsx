'use client'

import { sideAlong } from '@/core/analysis/sides'
import { stickersOf, stickerWords, type Marked } from '@/core/copy/colours'
import { colourIn, type Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { placeOf, start } from '@/core/state'
import { WINDOW_NAMES } from '@/ui/camera'
import { markInk, MARK_PATHS } from '@/ui/marks'
import { markTransform, outlinePath, project } from '@/ui/puzzle-picture/project'

/** The pair of windows with every sticker to be touched or reached by keys. */
export function StickerBoard({
  puzzle,
  scheme,
  marks,
  marked,
  current,
  wrong,
  onFocus,
  onPaint,
  onKeyDown,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  marked: Marked
  current: string
  wrong: ReadonlySet<string>
  onFocus: (id: string) => void
  onPaint: (id: string) => void
  onKeyDown: (event: React.KeyboardEvent) => void
}) {
  const state = start(puzzle)
  const stickers = stickersOf(puzzle)
  return (
    <svg
      viewBox="-1.05 -1.05 4.2 2.1"
      role="group"
      aria-label="Stickers, to be marked with the colours you see"
      className="mx-auto max-h-[58dvh] w-full"
      onKeyDown={onKeyDown}
    >
      {WINDOW_NAMES.map((name, i) => (
        <g key={name} transform={`translate(${2.1 * i} 0)`}>
          {project(puzzle, state, scheme, name).map((flat) => {
            const place = flat.piece
            if (flat.face === undefined || !flat.sticker) return null
            const side = sideAlong(puzzle, puzzle.pieces[place].faces[flat.face].normal)
            const sticker = stickers.find((each) => each.place === place && each.side === side)
            if (!sticker) return null
            const id = marked[sticker.id]
            const colour = id === undefined ? undefined : colourIn(scheme, id)
            const where = stickerWords(puzzle, sticker)
            return (
              <g
                key={sticker.id}
                role="button"
                tabIndex={sticker.id === current ? 0 : -1}
                data-sticker={sticker.id}
                data-place={placeOf(puzzle, state, place)}
                aria-label={`${where}: ${colour?.name ?? 'not marked'}`}
                className="cursor-pointer outline-none [&:focus-visible>.edge]:stroke-[var(--amber)]"
                onFocus={() => onFocus(sticker.id)}
                onClick={() => onPaint(sticker.id)}
              >
                <path
                  d={outlinePath(flat.outline)}
                  fill="#10131a"
                  stroke="#10131a"
                  strokeWidth={0.03}
                  strokeLinejoin="round"
                />
                <path
                  className="edge"
                  d={outlinePath(flat.sticker.outline)}
                  fill={colour?.shade ?? '#3a4152'}
                  stroke={wrong.has(sticker.id) ? 'var(--rose)' : 'transparent'}
                  strokeWidth={0.035}
                  strokeLinejoin="round"
                />
                {colour && marks && (
                  <path
                    d={MARK_PATHS[colour.mark]}
                    fill={markInk(colour.shade)}
                    pointerEvents="none"
                    transform={markTransform(flat.sticker)}
                  />
                )}
              </g>
            )
          })}
        </g>
      ))}
    </svg>
  )
}
