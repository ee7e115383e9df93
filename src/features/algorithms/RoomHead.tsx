import type { ReactNode } from 'react'
import { shelfAt } from '@/ui/algorithmAddresses'
import { LinkButton } from '@/ui/Button'

/** The head of a screen of the room: what it is, what it is for, and the way back to the shelves. */
export function RoomHead({
  puzzleId,
  title,
  about,
}: {
  puzzleId: string
  title: ReactNode
  about: ReactNode
}) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="min-w-0 grow">
        <h1 className="text-xl [overflow-wrap:anywhere]">{title}</h1>
        <p className="text-sm text-soft">{about}</p>
      </div>
      <LinkButton weight="quiet" href={shelfAt(puzzleId)}>
        All sequences for this puzzle
      </LinkButton>
    </div>
  )
}
