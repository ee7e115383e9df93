import Link from 'next/link'
import type { ReactNode } from 'react'
import type { Puzzle } from '@/core/puzzle/compile'
import { start, writeState } from '@/core/state'
import { PuzzleImage } from './puzzle-picture/PuzzleImage'

/** A puzzle that the program knows, as a way to one of its screens. */
export function PuzzleTile({
  puzzle,
  href,
  heading: Heading,
  children,
}: {
  puzzle: Puzzle
  href: string
  heading: 'h2' | 'h3'
  /** A line on it. */
  children: ReactNode
}) {
  return (
    <Link
      href={href}
      className="block h-full rounded-lg border border-line bg-surface p-3 hover:border-soft"
    >
      <PuzzleImage
        puzzleId={puzzle.definition.id}
        state={writeState(start(puzzle))}
        scheme={puzzle.definition.colours}
        label=""
        className="mb-2 w-full"
      />
      <Heading className="text-base">{puzzle.definition.name}</Heading>
      <p className="text-sm text-soft">{children}</p>
    </Link>
  )
}
