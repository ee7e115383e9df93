'use client'

import { coloursOf } from '@/core/analysis/anatomy'
import { factsSaid, lyingSaid } from '@/core/claims/facts'
import type { DialectId } from '@/core/notation/dialectId'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { IDENTITY } from '@/core/rotation'
import { start, type State } from '@/core/state'
import { sentencesOf } from '@/core/words/say'
import { PiecePicture } from '@/ui/puzzle-picture/PiecePicture'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'

/** One piece: what it shows, where it can go, what it can be taken for. */
export function PieceCard({
  puzzle,
  scheme,
  marks,
  state,
  piece,
  dialect,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  state: State
  piece?: number
  /** Turns are written in it. */
  dialect: DialectId
}) {
  return (
    <section
      aria-label="The touched piece"
      role="status"
      className="rounded-lg border border-line bg-surface p-3 text-sm"
    >
      {piece === undefined ? (
        <p className="text-soft">
          Touch a piece, or open a kind: its kind glows, and every place that it can reach is
          ringed.
        </p>
      ) : (
        <>
          <div className="flex items-start gap-3">
            <div className="grow">
              <h2 className="text-lg">
                {puzzle.pieces[piece].kind} <span className="turns">{puzzle.pieces[piece].id}</span>
              </h2>
              <p className="text-soft">{coloursOf(puzzle, scheme, piece)}</p>
            </div>
            <PiecePicture
              puzzle={puzzle}
              piece={piece}
              rotation={IDENTITY}
              scheme={scheme}
              marks={marks}
              single
              className="size-16 shrink-0"
            />
            <PuzzlePicture
              puzzle={puzzle}
              state={start(puzzle)}
              scheme={scheme}
              attend={[puzzle.pieces[piece].id]}
              label="Its place in the finished puzzle"
              className="h-16 w-32 shrink-0"
            />
          </div>
          <ul className="mt-1 grid gap-1">
            {sentencesOf(
              puzzle,
              [
                ...factsSaid(puzzle, piece),
                ...(state[piece] === IDENTITY ? [] : lyingSaid(puzzle, state, piece)),
              ],
              { dialect },
            ).map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
