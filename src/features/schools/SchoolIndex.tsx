import { CATALOG_IDS, ownDefinitions, puzzleById } from '@/core/catalog'
import { must } from '@/core/result'
import { schoolsFor } from '@/core/schools'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle with the methods that fit it. */
export function SchoolIndex() {
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Schools</h1>
      <p className="mb-6 text-soft">
        The methods that fit each puzzle: their stages, what is known by heart, what they cost.
      </p>
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
        {[...CATALOG_IDS, ...ownDefinitions().map(({ id }) => id)].map((id) => {
          const puzzle = must(puzzleById(id))
          return (
            <li key={id}>
              <PuzzleTile puzzle={puzzle} href={`/schools/${id}`} heading="h2">
                {schoolsFor(id)
                  .map(({ name }) => name)
                  .join(' \u00b7 ')}
              </PuzzleTile>
            </li>
          )
        })}
      </ul>
    </div>
  )
}
