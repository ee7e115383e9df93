/** From a shape mod to the plain puzzle with the same mechanism, piece by piece. */
import type { Puzzle } from '../puzzle/compile'
import type { PuzzleDefinition } from '../puzzle/definition'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'

/** The mechanism in its own shape and usual colours; undefined for a puzzle that is plain already. */
export function kinOf({ solid, mechanism, glue }: PuzzleDefinition): PuzzleDefinition | undefined {
  if (!solid) return undefined
  return must(readDefinition({ schema: 1, id: 'kin', name: 'kin', mechanism, glue }))
}

/** For each piece of the mod the piece of its kin that lies in the same cell, or undefined. */
export function kinPieces(puzzle: Puzzle, kin: Puzzle): (number | undefined)[] {
  const owner = new Map(
    kin.pieces.flatMap(({ cells }, k) => cells.map((cell) => [cell.join(), k] as const)),
  )
  return puzzle.pieces.map(({ cells }) => owner.get(cells[0].join()))
}
