import { CATALOG_NAMES } from '@/core/catalog'
import { schoolsFor } from '@/core/schools'
import type { OwnPuzzle } from '@/server/ownPuzzles'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle with the methods that fit it. */
export function SchoolIndex({ own }: { own: readonly OwnPuzzle[] }) {
  const tiles = [
    ...CATALOG_NAMES.map(({ id, name }) => ({ id, name, words: schoolNames(id) })),
    ...own.map(({ id, name }) => ({ id, name, words: 'a puzzle file of yours' })),
  ]
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Schools</h1>
      <p className="mb-6 text-soft">
        The methods that fit each puzzle: their stages, what is known by heart, what they cost.
      </p>
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
        {tiles.map(({ id, name, words }) => (
          <li key={id}>
            <PuzzleTile puzzleId={id} name={name} href={`/schools/${id}`} heading="h2">
              {words}
            </PuzzleTile>
          </li>
        ))}
      </ul>
    </div>
  )
}

const schoolNames = (id: string): string =>
  schoolsFor(id)
    .map(({ name }) => name)
    .join(' \u00b7 ')
