import { Fragment, useId } from 'react'
import { ArrowHead } from '../ArrowHead'
import type { Overlay, Point } from './overlay'

/** Radius of a numbered disc, and how far arrows keep from what they join, in pixels. */
const DISC = 10
const KEEP_OFF = 13
/** How far an arrow bends aside, in its own length. */
const BEND = 0.18

/** Letters, numbers and arrows over the windows. What they say is said in words beside them too. */
export function OverlayDrawing({
  overlays,
  isMoving,
}: {
  overlays: readonly Overlay[]
  /** While a layer turns only the letters stay. */
  isMoving: boolean
}) {
  const head = useId()
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 size-full">
      <ArrowHead id={head} size={4.2} />
      {overlays.map(({ letters, numbers, arrows, turns }, i) => (
        <Fragment key={i}>
          {letters.map(({ name, at: [x, y] }) => (
            <text
              key={name}
              x={x}
              y={y}
              className="turns fill-ink stroke-ground text-sm"
              strokeWidth={4}
              paintOrder="stroke"
              textAnchor="middle"
              dominantBaseline="central"
            >
              {name}
            </text>
          ))}
          {!isMoving && (
            <>
              {turns.map(({ path }) => (
                <Fragment key={i}>
                  <path
                    d={polyline(path)}
                    fill="none"
                    className="stroke-ground"
                    strokeWidth={8}
                    strokeLinecap="round"
                    opacity={0.75}
                  />
                  <path
                    data-turn-arrow
                    d={polyline(path)}
                    fill="none"
                    className="stroke-ink"
                    strokeWidth={4}
                    strokeLinecap="round"
                    markerEnd={`url(#${head})`}
                  />
                </Fragment>
              ))}
              {arrows.map(({ from, to }, n) => (
                <path
                  key={n}
                  data-place-arrow
                  d={bent(from, to)}
                  fill="none"
                  className="stroke-amber"
                  strokeWidth={3}
                  strokeDasharray="6 4"
                  markerEnd={`url(#${head})`}
                />
              ))}
              {numbers.map(({ number, at: [x, y], isHidden }) => (
                <g key={number} data-number={number}>
                  <circle
                    cx={x}
                    cy={y}
                    r={DISC}
                    className={isHidden ? 'fill-ground stroke-amber' : 'fill-amber stroke-ground'}
                    strokeWidth={2}
                    strokeDasharray={isHidden ? '3 2' : undefined}
                  />
                  <text
                    x={x}
                    y={y}
                    className={`text-xs font-bold ${isHidden ? 'fill-ink' : 'fill-on-amber'}`}
                    textAnchor="middle"
                    dominantBaseline="central"
                  >
                    {number}
                  </text>
                </g>
              ))}
            </>
          )}
        </Fragment>
      ))}
    </svg>
  )
}

const polyline = (points: readonly Point[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' ')

/** A bow from one point toward another, clear of what stands at both. */
function bent([ax, ay]: Point, [bx, by]: Point): string {
  const [dx, dy] = [bx - ax, by - ay]
  const length = Math.hypot(dx, dy)
  if (length < 2.5 * KEEP_OFF) return ''
  const [ux, uy] = [dx / length, dy / length]
  const middle = [(ax + bx) / 2 - uy * BEND * length, (ay + by) / 2 + ux * BEND * length]
  const start = [ax + ux * KEEP_OFF, ay + uy * KEEP_OFF]
  const end = [bx - ux * KEEP_OFF, by - uy * KEEP_OFF]
  const at = ([x, y]: readonly number[]) => `${x.toFixed(1)} ${y.toFixed(1)}`
  return `M${at(start)} Q${at(middle)} ${at(end)}`
}
