'use client'

import { useMemo } from 'react'
import { kinOf, kinPieces } from '@/core/analysis/kin'
import { compile, type Puzzle } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { PuzzlePicture } from '@/ui/puzzle-picture/PuzzlePicture'

/** The plain puzzle with the same mechanism, held alike; undefined for one that is plain itself. */
export function useKin(puzzle: Puzzle) {
  return useMemo(() => {
    const plain = kinOf(puzzle.definition)
    if (!plain) return undefined
    const kin = compile({ ...plain, view: puzzle.definition.view })
    return { kin, pieces: kinPieces(puzzle, kin) }
  }, [puzzle])
}

/** What is on the bench as the plain puzzle shows it: every layer turns along, and what is lit is lit here too. */
export function KinBeside({
  coupled: { kin, pieces },
  state,
  attend,
  marks,
}: {
  coupled: NonNullable<ReturnType<typeof useKin>>
  state: State
  /** Indices of the pieces that are lit. */
  attend: readonly number[]
  marks: boolean
}) {
  const shown = new Uint8Array(kin.pieces.length)
  pieces.forEach((k, p) => {
    if (k !== undefined) shown[k] = state[p]
  })
  const lit = attend.flatMap((p) => {
    const k = pieces[p]
    return k === undefined ? [] : [kin.pieces[k].id]
  })
  return (
    <figure className="flex items-center justify-center gap-3" aria-label="The plain puzzle">
      <PuzzlePicture
        puzzle={kin}
        state={shown}
        scheme={kin.definition.colours}
        marks={marks}
        attend={lit}
        label={`The plain puzzle with the same mechanism, in the same position, ${lit.length} of its pieces lit.`}
        className="h-36 max-w-full lg:h-44"
      />
      <figcaption className="max-w-36 text-sm text-soft">
        The plain puzzle inside. It turns along.
      </figcaption>
    </figure>
  )
}
