'use client'

import { useMemo, type ComponentProps } from 'react'
import { joinedAs, joinedState } from '@/core/analysis/joined'
import { kinOf, kinPieces } from '@/core/analysis/kin'
import type { Scheme } from '@/core/puzzle/colours'
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
    <Beside
      name="The plain puzzle"
      label={`The plain puzzle with the same mechanism, in the same position, ${lit.length} of its pieces lit.`}
      caption="The plain puzzle inside. It turns along."
      puzzle={kin}
      state={shown}
      scheme={kin.definition.colours}
      marks={marks}
      attend={lit}
    />
  )
}

/** What is joined as the smaller puzzle that it is played as; undefined while something is not joined. */
export function useSmaller(
  puzzle: Puzzle,
  size: readonly [number, number, number] | undefined,
  state: State,
) {
  const key = size?.join()
  return useMemo(() => {
    const sizes = key?.split(',').map(Number) as [number, number, number] | undefined
    const joined = sizes && joinedAs(puzzle, sizes)
    const read = joined && joinedState(puzzle, joined, state)
    return joined && read ? { ...joined, state: read } : undefined
  }, [puzzle, key, state])
}

/** The smaller puzzle, each of its pieces where its parts are. */
export function SmallerBeside({
  puzzle,
  smaller: { small, partsOf, state },
  real,
  scheme,
  attend,
  marks,
}: {
  puzzle: Puzzle
  smaller: NonNullable<ReturnType<typeof useSmaller>>
  real: State
  scheme: Scheme
  attend: readonly number[]
  marks: boolean
}) {
  const slots = new Set(attend.map((p) => puzzle.slot[24 * p + real[p]]))
  const lit = small.pieces.flatMap(({ id }, whole) =>
    partsOf[whole].some((part) => slots.has(puzzle.slot[24 * part + state[whole]])) ? [id] : [],
  )
  return (
    <Beside
      name="The smaller puzzle"
      label={`What is joined as a smaller puzzle, ${lit.length} of its pieces lit.`}
      caption="What is joined is one piece: it is played as this smaller puzzle."
      puzzle={small}
      state={state}
      scheme={scheme}
      marks={marks}
      attend={lit}
    />
  )
}

function Beside({
  name,
  caption,
  ...picture
}: { name: string; caption: string } & ComponentProps<typeof PuzzlePicture>) {
  return (
    <figure className="flex items-center justify-center gap-3" aria-label={name}>
      <PuzzlePicture {...picture} className="h-36 max-w-full lg:h-44" />
      <figcaption className="max-w-36 text-sm text-soft">{caption}</figcaption>
    </figure>
  )
}
