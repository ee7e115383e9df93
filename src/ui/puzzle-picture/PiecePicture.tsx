import { memo } from 'react'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { Rotation } from '@/core/rotation'
import { start } from '@/core/state'
import { WINDOW_NAMES } from '../camera'
import { Facet } from './Facet'
import { project, type FlatFacet } from './project'

/** A little lighter than the body, so that a dark piece has a shape. */
const EDGE = '#2b3140'
const AIR = 0.2

/** Of two views the one that shows more faces; the near one if both show as many. */
function fuller(near: readonly FlatFacet[], far: readonly FlatFacet[] | undefined) {
  const faces = (facets: readonly FlatFacet[]) => facets.filter(({ sticker }) => sticker).length
  return far && faces(far) > faces(near) ? far : near
}

/** One piece as it lies in some placement, large, from those corners that see a face of it. */
export const PiecePicture = memo(function PiecePicture({
  puzzle,
  piece,
  rotation,
  scheme,
  marks,
  single = false,
  className,
}: {
  puzzle: Puzzle
  piece: number
  rotation: Rotation
  scheme: Scheme
  marks: boolean
  /** Only from the corner that sees most of its faces. */
  single?: boolean
  className?: string
}) {
  const state = start(puzzle)
  state[piece] = rotation
  const seen = WINDOW_NAMES.map((name) => project(puzzle, state, scheme, name, piece)).filter(
    (facets) => facets.some(({ sticker }) => sticker),
  )
  const views = single ? seen.slice(0, 1).map((near) => fuller(near, seen[1])) : seen
  // The coloured faces fill the picture; the body is cut off where it goes on.
  const boxes = views.map((facets) => {
    const points = facets.flatMap(({ sticker, outline }) => (sticker ? outline : []))
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)]
    const [left, right] = [Math.min(...xs), Math.max(...xs)]
    const [top, bottom] = [Math.min(...ys), Math.max(...ys)]
    return {
      x: (left + right) / 2,
      y: (top + bottom) / 2,
      side: Math.max(right - left, bottom - top),
    }
  })
  const side = Math.max(...boxes.map((box) => box.side)) * (1 + 2 * AIR)
  return (
    <svg viewBox={`0 0 ${views.length} 1`} className={className} aria-hidden>
      {views.map((facets, i) => {
        const corner = [boxes[i].x - side / 2, boxes[i].y - side / 2].map((c) => c.toFixed(3))
        return (
          <svg
            key={i}
            x={i}
            y={0}
            width={1}
            height={1}
            viewBox={`${corner.join(' ')} ${side.toFixed(3)} ${side.toFixed(3)}`}
            strokeLinejoin="round"
          >
            {facets.map((facet, at) => (
              <Facet key={at} facet={facet} marks={marks} edge={EDGE} edgeWidth={side * 0.008} />
            ))}
          </svg>
        )
      })}
    </svg>
  )
})
