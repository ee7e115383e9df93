/** The pieces that a selection means, with some side as base. */
import { piecesShowing, sideOpposite } from '../analysis/sides'
import { memoised } from '../memo'
import { directionOfLetter, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import type { Selection } from '../schools/school'
import { baseKind } from '../words'

/** Indices, ascending. */
export const selected = (
  puzzle: Puzzle,
  selection: Selection,
  base: Direction,
): readonly number[] => selectedBy(puzzle, `${base.letter}${written(selection)}`)

const texts = new WeakMap<Selection, string>()

/** Written once: a selection is asked for again and again. */
function written(selection: Selection): string {
  const text = texts.get(selection) ?? JSON.stringify(selection)
  texts.set(selection, text)
  return text
}

const selectedBy = memoised((puzzle: Puzzle, key: string): readonly number[] => {
  const base = directionOfLetter(key[0])
  const selection = JSON.parse(key.slice(1)) as Selection
  const first = piecesShowing(puzzle, base)
  const across = sideOpposite(puzzle, base)
  const far = across ? piecesShowing(puzzle, across) : []
  const layerOf = (p: number) => {
    if (first.includes(p)) return 'base'
    return far.length === 0 || far.includes(p) ? 'last' : 'middle'
  }
  const but = selection.but ? selected(puzzle, selection.but, base) : []
  return puzzle.pieces.flatMap(({ kind, core }, p) =>
    (selection.half === undefined || selection.half === core) &&
    (selection.kinds?.includes(baseKind(kind)) ?? true) &&
    (selection.layers?.includes(layerOf(p)) ?? true) &&
    !but.includes(p)
      ? [p]
      : [],
  )
})
