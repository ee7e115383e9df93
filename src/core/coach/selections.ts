/** The pieces that a selection means, with some side as base. */
import { joinedAs } from '../analysis/joined'
import { capMeant, isInCap } from '../analysis/caps'
import { circlesInOrder } from '../analysis/circles'
import { piecesShowing, sideOpposite } from '../analysis/sides'
import { average, dot } from '../geometry/vector'
import { memoised } from '../memo'
import { directionOfLetter, directionOfVector, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import type { Column, Selection } from '../schools/school'
import { baseKind } from '../phrases'

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
  if (selection.as) {
    const joined = joinedAs(puzzle, selection.as)
    if (!joined) return []
    const wholes = selected(joined.small, { ...selection, as: undefined }, base)
    return wholes.flatMap((whole) => [...joined.partsOf[whole]]).sort((a, b) => a - b)
  }
  const first = piecesShowing(puzzle, base)
  const across = sideOpposite(puzzle, base)
  const far = across ? piecesShowing(puzzle, across) : []
  const layerOf = (p: number) => {
    if (first.includes(p)) return 'base'
    return far.length === 0 || far.includes(p) ? 'last' : 'middle'
  }
  const nested =
    selection.box === undefined && !selection.columns ? undefined : boxesAlong(puzzle, base)
  const circle =
    selection.circle === undefined ? undefined : circlesInOrder(puzzle)[selection.circle - 1]
  const cap = selection.cap === undefined ? undefined : capMeant(puzzle, selection.cap)
  const but = selection.but ? selected(puzzle, selection.but, base) : []
  return puzzle.pieces.flatMap(({ kind, core }, p) =>
    (selection.half === undefined || selection.half === core) &&
    (selection.kinds?.includes(baseKind(kind)) ?? true) &&
    (selection.layers?.includes(nested?.[p].layer ?? layerOf(p)) ?? true) &&
    (selection.box === undefined || selection.box === nested?.[p].box) &&
    (circle === undefined || isOnCircle(puzzle, p, circle)) &&
    (cap === undefined || isInCap(puzzle, p, cap)) &&
    (!nested || (selection.columns?.includes(nested[p].column) ?? true)) &&
    !but.includes(p)
      ? [p]
      : [],
  )
})

/** Whether a piece is a bit of the circle on that side. */
const isOnCircle = (puzzle: Puzzle, piece: number, side: Direction): boolean => {
  const { kind, faces } = puzzle.pieces[piece]
  return kind.endsWith(' bit') && directionOfVector(faces[0].normal) === side
}

interface InBoxes {
  /** Which of the boxes that lie in each other, from the outside; 0 for the belt. */
  readonly box: number
  readonly layer: 'base' | 'last' | 'middle'
  readonly column: Column
}

/** For each piece of a box where it is at home, seen along the axis through a side. */
function boxesAlong(puzzle: Puzzle, { vector }: Direction): readonly InBoxes[] {
  const middles = puzzle.pieces.map(({ cells }) => average(cells))
  const along = middles.map((middle) => dot(middle, vector))
  const levels = [...new Set(along.map(rounded))].sort((a, b) => b - a)
  const across = middles.map((middle) =>
    middle.filter((_, axis) => vector[axis] === 0).map(Math.abs),
  )
  const edge = Math.max(...across.flat())
  return puzzle.pieces.map((_, p) => {
    const level = levels.indexOf(rounded(along[p]))
    const fromFar = levels.length - 1 - level
    const outer = across[p].filter((c) => rounded(c) === rounded(edge)).length
    return {
      box: level === fromFar ? 0 : 1 + Math.min(level, fromFar),
      layer: level === fromFar ? 'middle' : level < fromFar ? 'base' : 'last',
      column: outer === 2 ? 'corner' : outer === 1 ? 'side' : 'axis',
    }
  })
}

const rounded = (n: number): number => Math.round(1000 * n)
