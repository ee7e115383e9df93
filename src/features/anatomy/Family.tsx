import { CATALOG_IDS, ownDefinitions, puzzleById } from '@/core/catalog'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import { inWords, plural } from '@/core/words'
import { MECHANISM_WORDS } from '@/ui/mechanismWords'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle that the program knows, by how it turns; the solver's own among them. */
export function Family() {
  const ids = [...CATALOG_IDS, ...ownDefinitions().map(({ id }) => id)]
  const puzzles = ids.map((id) => must(puzzleById(id)))
  const mechanisms = [...new Set(puzzles.map(kindOf))]
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Anatomy</h1>
      <p className="mb-6 text-soft">
        Take a puzzle apart: its kinds of pieces, where they can go, what it has in common with a
        plainer one.
      </p>
      {mechanisms.map((mechanism) => (
        <section key={mechanism} className="mb-6">
          <h2 className="mb-2 text-lg text-soft">{MECHANISM_WORDS[mechanism]}</h2>
          <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
            {puzzles
              .filter((puzzle) => kindOf(puzzle) === mechanism)
              .map((puzzle) => (
                <li key={puzzle.definition.id}>
                  <PuzzleTile
                    puzzle={puzzle}
                    href={`/anatomy/${puzzle.definition.id}`}
                    heading="h3"
                  >
                    {plural(puzzle.pieces.length, 'piece')} of {kindCount(puzzle)}
                  </PuzzleTile>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

const kindOf = ({ definition }: Puzzle) => definition.mechanism.kind

const kindCount = ({ pieces }: Puzzle) => {
  const count = new Set(pieces.map(({ kind }) => kind)).size
  return `${inWords(count)} ${count === 1 ? 'kind' : 'kinds'}`
}
