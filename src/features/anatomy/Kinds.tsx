'use client'

import type { Kind } from '@/core/analysis/anatomy'
import type { Puzzle } from '@/core/puzzle/compile'
import { inWords, kindPlural } from '@/core/phrases'
import { classes } from '@/ui/classes'

/** The kinds of pieces; an open one lists its pieces, so that each can be reached by keys. */
export function Kinds({
  puzzle,
  kinds,
  piece,
  onChoose,
}: {
  puzzle: Puzzle
  kinds: readonly Kind[]
  piece?: number
  onChoose: (piece: number | undefined) => void
}) {
  return (
    <section aria-label="Kinds of pieces">
      <h2 className="mb-1 text-base">Kinds of pieces</h2>
      <ul className="divide-y divide-line rounded-lg border border-line bg-surface">
        {kinds.map((kind) => {
          const isOpen = piece !== undefined && kind.pieces.includes(piece)
          return (
            <li key={kind.name}>
              <button
                type="button"
                aria-expanded={isOpen}
                onClick={() => onChoose(isOpen ? undefined : kind.pieces[0])}
                className="flex min-h-9 w-full items-baseline gap-2 px-3 py-1 text-left hover:bg-raised"
              >
                <span className="turns w-7 text-right text-amber">{kind.pieces.length}</span>
                <span className="grow">
                  {kind.pieces.length === 1 ? kind.name : kindPlural(kind.name)}
                </span>
                <span className="text-sm text-soft">
                  {kind.faces === 1 ? 'one face' : `${inWords(kind.faces)} faces`}
                </span>
              </button>
              {isOpen && (
                <div className="flex flex-wrap gap-1 px-3 pb-2 pl-12">
                  {kind.pieces.map((p) => (
                    <button
                      key={p}
                      type="button"
                      aria-pressed={p === piece}
                      onClick={() => onChoose(p)}
                      className={classes(
                        'turns min-h-7 rounded border px-1.5 text-xs',
                        p === piece
                          ? 'border-amber text-amber'
                          : 'border-line bg-raised hover:border-soft',
                      )}
                    >
                      {puzzle.pieces[p].id}
                    </button>
                  ))}
                </div>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
