import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import type { Puzzle } from '@/core/puzzle/compile'
import { must } from '@/core/result'
import { inWords, plural } from '@/core/phrases'
import type { OwnPuzzle } from '@/server/ownPuzzles'
import { MECHANISM_WORDS } from '@/ui/mechanismWords'
import { PuzzleTile } from '@/ui/PuzzleTile'

/** Every puzzle that the program knows, by how it turns; the solver's own among them. */
export function Family({ own }: { own: readonly OwnPuzzle[] }) {
  const tiles = [
    ...CATALOG_IDS.map((id) => {
      const puzzle = must(puzzleById(id))
      const { name, mechanism } = puzzle.definition
      return { id, name, mechanism: mechanism.kind, words: piecesOf(puzzle) }
    }),
    ...own.map((each) => ({ ...each, words: 'a puzzle file of yours' })),
  ]
  const mechanisms = [...new Set(tiles.map(({ mechanism }) => mechanism))]
  return (
    <div className="mx-auto w-full max-w-6xl grow px-4 py-6 sm:px-6">
      <h1 className="text-3xl">Anatomy</h1>
      <p className="mb-6 text-soft">
        Take a puzzle apart: its kinds of pieces, where they can go, what it has in common with a
        plainer one.
      </p>
      {mechanisms.map((kind) => (
        <section key={kind} className="mb-6">
          <h2 className="mb-2 text-lg text-soft">{MECHANISM_WORDS[kind]}</h2>
          <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(15rem,1fr))]">
            {tiles
              .filter(({ mechanism }) => mechanism === kind)
              .map(({ id, name, words }) => (
                <li key={id}>
                  <PuzzleTile puzzleId={id} name={name} href={`/anatomy/${id}`} heading="h3">
                    {words}
                  </PuzzleTile>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

function piecesOf({ pieces }: Puzzle): string {
  const count = new Set(pieces.map(({ kind }) => kind)).size
  return `${plural(pieces.length, 'piece')} of ${inWords(count)} ${count === 1 ? 'kind' : 'kinds'}`
}
