'use client'

import {
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js'
import { Line } from 'react-chartjs-2'
import { movingMean } from '@/core/statistics/summary'
import { clockTime } from '@/ui/time'
import { useThemeColours } from '@/ui/useThemeColours'

Chart.register(CategoryScale, Legend, LinearScale, LineElement, PointElement, Tooltip)

/** How many solves the drawn-through line takes together. */
const WINDOW = 5

/** A solve, or the mean of some that follow each other. */
export interface ChartedPoint {
  readonly at: string
  readonly elapsedMs: number
}

/** Times, oldest first, and the mean of the latest five points. */
export function ProgressChart({
  points,
  together,
}: {
  points: readonly ChartedPoint[]
  /** How many solves a point is the mean of. */
  together: number
}) {
  const look = useThemeColours()
  if (!look) return null
  const seconds = points.map(({ elapsedMs }) => elapsedMs / 1000)
  return (
    <div className="absolute inset-0">
      <Line
        role="img"
        aria-label={`Times of ${points.length} ${together > 1 ? `groups of ${together} solves` : 'solves'}, oldest first, from ${clockTime(1000 * Math.max(...seconds))} at most to ${clockTime(1000 * Math.min(...seconds))} at best`}
        data={{
          labels: points.map(({ at }) => at),
          datasets: [
            {
              label: together > 1 ? `mean of each ${together} solves` : 'each solve',
              data: seconds,
              showLine: false,
              pointRadius: 2.5,
              backgroundColor: look.soft,
              borderWidth: 0,
              pointStyle: 'circle',
            },
            {
              label: `mean of the latest ${WINDOW * together}`,
              data: movingMean(seconds, WINDOW),
              borderColor: look.amber,
              borderWidth: 2,
              pointRadius: 0,
              pointStyle: 'line',
              tension: 0.3,
            },
          ],
        }}
        options={{
          maintainAspectRatio: false,
          animation: false,
          plugins: {
            legend: {
              position: 'bottom',
              // A dot for the dots, a line for the line.
              labels: { color: look.ink, usePointStyle: true, boxHeight: 7 },
            },
            tooltip: {
              callbacks: { label: ({ parsed }) => clockTime(1000 * (parsed.y ?? 0)) },
            },
          },
          scales: {
            x: {
              ticks: {
                color: look.soft,
                maxTicksLimit: 9,
                // A day stands once, at its first solve that has a tick.
                callback: (value, index, ticks) => {
                  const day = points[Number(value)]?.at
                  const before = ticks[index - 1]
                  return before && points[Number(before.value)]?.at === day ? '' : day
                },
              },
              grid: { display: false },
            },
            y: {
              beginAtZero: true,
              ticks: { color: look.soft, callback: (value) => clockTime(1000 * Number(value)) },
              grid: { color: look.line },
            },
          },
        }}
      />
    </div>
  )
}
