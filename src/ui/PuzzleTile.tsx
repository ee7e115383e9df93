import Link from 'next/link'
import type { ReactNode } from 'react'
import { PuzzleImage } from './puzzle-picture/PuzzleImage'

/** A puzzle that the program knows, as a way to one of its screens; it need not be built for that. */
export function PuzzleTile({
  puzzleId,
  name,
  href,
  heading: Heading,
  children,
}: {
  puzzleId: string
  name: string
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
      <PuzzleImage puzzleId={puzzleId} label="" className="mb-2 w-full" />
      <Heading className="text-base">{name}</Heading>
      <p className="text-sm text-soft">{children}</p>
    </Link>
  )
}
