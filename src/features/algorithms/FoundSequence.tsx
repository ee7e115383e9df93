import Link from 'next/link'
import type { ReactNode } from 'react'
import { rewritten, type DialectId } from '@/core/notation/dialect'
import type { Puzzle } from '@/core/puzzle/compile'
import { sequenceAt } from '@/ui/algorithmAddresses'

/** A sequence that was found or mended, as a way to its page, with a line on it. */
export function FoundSequence({
  puzzle,
  puzzleId,
  turns,
  dialect,
  children,
}: {
  puzzle: Puzzle
  puzzleId: string
  /** Canonical. */
  turns: string
  dialect: DialectId
  children: ReactNode
}) {
  return (
    <li className="rounded-lg border border-line bg-surface px-3 py-2 text-sm">
      <Link
        className="turns text-base underline decoration-line [overflow-wrap:anywhere]"
        href={sequenceAt(puzzleId, turns)}
      >
        {rewritten(puzzle, turns, dialect)}
      </Link>
      <p className="text-soft">{children}</p>
    </li>
  )
}
