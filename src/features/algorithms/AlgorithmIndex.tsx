import { CATALOG_IDS, ownDefinitions, puzzleById } from '@/core/catalog'
import { must } from '@/core/result'
import { plural } from '@/core/words'
import { shelfAt } from '@/ui/algorithmAddresses'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle, as a way to its sequences. */
export function AlgorithmIndex({ counts }: { counts: Readonly<Record<string, number>> }) {
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Algorithms</h1>
      <p className="mb-6 text-soft">
        What a sequence of turns really does on each puzzle: found, adapted, mended, kept.
      </p>
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
        {[...CATALOG_IDS, ...ownDefinitions().map(({ id }) => id)].map((id) => (
          <li key={id}>
            <PuzzleTile puzzle={must(puzzleById(id))} href={shelfAt(id)} heading="h2">
              {counts[id] ? `${plural(counts[id], 'sequence')} of yours` : 'none of yours yet'}
            </PuzzleTile>
          </li>
        ))}
      </ul>
    </div>
  )
}
