import { format } from 'date-fns'
import Link from 'next/link'
import { schoolName } from '@/core/schools'
import { plural } from '@/core/phrases'
import type { LeftOff } from '@/server/leftOff'

/** Solves that were left off: with their turns, open to be taken up. */
export function LeftOffList({ benches }: { benches: readonly LeftOff[] }) {
  return (
    <details className="rounded-lg border border-line bg-surface p-4" open={benches.length <= 3}>
      <summary className="cursor-pointer">
        <h2 className="inline text-lg">Left off</h2>{' '}
        <span className="text-sm text-soft">{plural(benches.length, 'solve')}</span>
      </summary>
      <ul className="mt-2 grid max-h-72 gap-1 overflow-y-auto">
        {benches.map(({ id, copyName, school, turns, endedAt }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
            <Link
              href={`/bench/${id}`}
              className="underline decoration-line underline-offset-4 hover:decoration-soft"
            >
              {copyName}
            </Link>
            <span className="text-sm text-soft">
              {(school === undefined ? undefined : schoolName(school)) ?? 'Free play'},{' '}
              {plural(turns, 'turn')}, {format(endedAt, 'd MMM yyyy, HH:mm')}
            </span>
          </li>
        ))}
      </ul>
    </details>
  )
}
