import type { Problem } from '@/core/result'
import { LinkButton } from '@/ui/Button'
import { Damaged } from '@/ui/Damaged'

/** In the place of a screen whose puzzle or bench cannot be read. */
export function DamagedPage({
  what,
  problem,
  copyId,
}: {
  what: string
  problem: Problem
  copyId?: string
}) {
  return (
    <div className="mx-auto grid w-full max-w-prose gap-4 p-8">
      <h1 className="text-2xl">{what}</h1>
      <Damaged
        what="What stands here"
        sentence={problem.sentence}
        file={copyId && `/api/copies/${copyId}`}
      />
      <div>
        <LinkButton href="/shelf">
          {copyId ? 'To the shelf, where it can be removed' : 'To the shelf'}
        </LinkButton>
      </div>
    </div>
  )
}
