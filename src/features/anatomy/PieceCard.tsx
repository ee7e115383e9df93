'use client'

import { coloursOf, factWords, placeWords } from '@/core/analysis/anatomy'
import { fitOf } from '@/core/analysis/fit'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import { IDENTITY } from '@/core/rotation'
import { start, type State } from '@/core/state'
import { PiecePicture } from '@/ui/puzzle-picture/PiecePicture'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'

/** One piece: what it shows, where it can go, what it can be taken for. */
export function PieceCard({
  puzzle,
  scheme,
  marks,
  state,
  piece,
}: {
  puzzle: Puzzle
  scheme: Scheme
  marks: boolean
  state: State
  piece?: number
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
            {factWords(puzzle, piece).map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
            {state[piece] !== 0 && <li>{whereNow(puzzle, state, piece)}</li>}
          </ul>
        </>
      )}
    </section>
  )
}

function whereNow(puzzle: Puzzle, state: State, piece: number): string {
  const slot = puzzle.slot[24 * piece + state[piece]]
  if (slot >= puzzle.pieces.length) return 'Now it lies outside the finished shape.'
  const at = slot === piece ? 'Now it is in its own place' : `Now it is ${placeWords(puzzle, slot)}`
  return {
    home: `${at} and looks right there.`,
    shape: `${at}; its shape fits, its colours do not.`,
    out: `${at}; its shape does not fit there.`,
  }[fitOf(puzzle, piece, state[piece])]
}
