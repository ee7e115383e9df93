'use client'

import Link from 'next/link'
import { useState } from 'react'
import { placeNamesOf } from '@/core/analysis/placeNames'
import { rewritten, type DialectId } from '@/core/notation/dialect'
import { writeTurns } from '@/core/notation/write'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import type { Result } from '@/core/result'
import type { Settings } from '@/core/settings'
import { capital, listed, plural, times } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { cancelCoach, coach } from '@/workers/coach'
import type { Adapted } from '@/workers/algorithmWork'
import { finderAt, sequenceAt } from '@/ui/algorithmAddresses'

/** More places than these are counted, not named. */
const MOST_NAMED = 4

type Way = Adapted['ways'][number]

/** The sequence as it is known from the plain puzzle: what it disturbs here besides, and cleaner ways. */
export function Adapt({
  puzzle,
  puzzleId,
  turns,
  settings,
  dialect,
}: {
  puzzle: Puzzle
  puzzleId: string
  turns: readonly Turn[]
  settings: Settings
  dialect: DialectId
}) {
  const [found, setFound] = useState<Result<Adapted | undefined>>()
  const [isBusy, setBusy] = useState(false)
  const look = async () => {
    setBusy(true)
    setFound(undefined)
    setFound(await coach().adapt(puzzleId, writeTurns(turns), settings.hand))
    setBusy(false)
  }
  return (
    <section
      aria-label="As on the plain puzzle"
      className="grid grid-cols-[minmax(0,1fr)] gap-2 rounded-lg border border-line bg-surface px-4 py-3 text-sm"
    >
      <h2 className="text-base">As on the plain puzzle</h2>
      {!found && !isBusy && (
        <>
          <p className="text-soft">
            What it disturbs here that the plain puzzle does not show, and ways to do without.
          </p>
          <Button className="justify-self-start" onClick={() => void look()}>
            Compare, and look for cleaner ways
          </Button>
        </>
      )}
      {isBusy && (
        <div className="flex items-center gap-3" role="status">
          Repeats, turns before and after, and setups are tried.
          <Button
            onClick={() => {
              cancelCoach()
              setBusy(false)
            }}
          >
            Cancel
          </Button>
        </div>
      )}
      {found && !found.ok && <Notice kind="wrong">{found.problem.sentence}</Notice>}
      {found?.ok && found.value === undefined && (
        <p>The plain puzzle has no layers for some of these turns, so it knows no such sequence.</p>
      )}
      {found?.ok && found.value && (
        <Told {...{ puzzle, puzzleId, turns, dialect }} adapted={found.value} />
      )}
    </section>
  )
}

function Told({
  puzzle,
  puzzleId,
  turns,
  dialect,
  adapted: { besides, ways },
}: {
  puzzle: Puzzle
  puzzleId: string
  turns: readonly Turn[]
  dialect: DialectId
  adapted: Adapted
}) {
  const { names } = placeNamesOf(puzzle, 0)
  const where = besides.map((p) => names[p])
  const isClean = ways.some(({ how }) => how === 'as it is')
  return (
    <div className="grid gap-2" role="status">
      <p>
        {besides.length === 0
          ? 'It does here exactly what it does there.'
          : isClean
            ? `It does the same here as it is seen; ${plural(besides.length, 'piece')} that look alike or are turned unseen are changed too.`
            : besides.length > MOST_NAMED
              ? `Here it also disturbs ${plural(besides.length, 'piece')}.`
              : `Here it also disturbs ${listed(where)}.`}
      </p>
      {!isClean && ways.length === 0 && (
        <p>
          No repeats, no six turns before or after and no setup of two make it clean.{' '}
          <Link className="underline" href={finderAt(puzzleId, writeTurns(turns))}>
            Ask the finder
          </Link>{' '}
          for another way.
        </p>
      )}
      {!isClean && ways.length > 0 && (
        <ul className="grid gap-2">
          {ways.map((way) => (
            <li key={way.turns} className="border-t border-line pt-2">
              <Link
                className="turns underline decoration-line"
                href={sequenceAt(puzzleId, way.turns)}
              >
                {rewritten(puzzle, way.turns, dialect)}
              </Link>
              <p className="text-soft">
                {capital(howWords(puzzle, way, dialect))}: {plural(way.turnCount, 'turn')},{' '}
                {way.cost.toFixed(1)} in the hand.
              </p>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

function howWords(puzzle: Puzzle, { how, by }: Way, dialect: DialectId): string {
  const added = () => rewritten(puzzle, by, dialect)
  switch (how) {
    case 'as it is':
      return 'as it is'
    case 'repeated':
      return `done ${times(Number(by))}`
    case 'turns before':
      return `${added()} before it`
    case 'turns after':
      return `${added()} after it`
    case 'set up':
      return `set up with ${added()}, taken back at the end`
  }
}
