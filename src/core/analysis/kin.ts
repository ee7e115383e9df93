/** From a shape mod to the plain puzzle with the same mechanism, piece by piece. */
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { PuzzleDefinition } from '../puzzle/definition'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'

/**
 * The mechanism in its own shape and usual colours; of circles the cube that turns as their outer parts do.
 * Undefined for a puzzle that is plain already.
 */
export function kinOf({ solid, mechanism, glue }: PuzzleDefinition): PuzzleDefinition | undefined {
  if (mechanism.kind === 'circles')
    return must(
      readDefinition({
        schema: 1,
        id: 'kin',
        name: 'kin',
        mechanism: { kind: 'box', size: [3, 3, 3] },
      }),
    )
  if (!solid) return undefined
  return must(readDefinition({ schema: 1, id: 'kin', name: 'kin', mechanism, glue }))
}

/** For each piece of the mod the piece of its kin that lies in the same cell, or undefined. */
export function kinPieces(puzzle: Puzzle, kin: Puzzle): (number | undefined)[] {
  // Outer parts of circles are called after the sides that they show, as the pieces of the cube are. A centre
  // turns with its circle, which may stand still.
  if (puzzle.definition.mechanism.kind === 'circles')
    return puzzle.pieces.map(({ id }) => {
      const found = id.length < 2 ? -1 : kin.pieces.findIndex((piece) => piece.id === id)
      return found < 0 ? undefined : found
    })
  const owner = new Map(
    kin.pieces.flatMap(({ cells }, k) => cells.map((cell) => [cell.join(), k] as const)),
  )
  return puzzle.pieces.map(({ cells }) => owner.get(cells[0].join()))
}

/** The colours of the kin as the copy has them, where both have the same. */
export const kinScheme = (kin: Puzzle, scheme: Scheme): Scheme =>
  kin.definition.colours.map((colour) => scheme.find(({ id }) => id === colour.id) ?? colour)
