import { CATALOG_NAMES } from '@/core/catalog'
import { plural } from '@/core/phrases'
import type { OwnPuzzle } from '@/server/ownPuzzles'
import { shelfAt } from '@/ui/algorithmAddresses'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle, as a way to its sequences. */
export function AlgorithmIndex({
  counts,
  own,
}: {
  counts: Readonly<Record<string, number>>
  own: readonly OwnPuzzle[]
}) {
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Algorithms</h1>
      <p className="mb-6 text-soft">
        What a sequence of turns really does on each puzzle: found, adapted, mended, kept.
      </p>
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
        {[...CATALOG_NAMES, ...own].map(({ id, name }) => (
          <li key={id}>
            <PuzzleTile puzzleId={id} name={name} href={shelfAt(id)} heading="h2">
              {counts[id] ? `${plural(counts[id], 'sequence')} of yours` : 'none of yours yet'}
            </PuzzleTile>
          </li>
        ))}
      </ul>
    </div>
  )
}
