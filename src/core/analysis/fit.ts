/**
 * Whether a piece fits where it lies, by shape alone and with its colours. Outlines are compared as
 * looks are, the colours left out.
 */
import { IN, placed, type Puzzle, type Turn } from '../puzzle/compile'
import { ROTATION_COUNT } from '../rotation'
import type { State } from '../state'

/** 'home': looks as the finished puzzle does there. 'shape': so does its outline. 'out': neither. */
export type Fit = 'home' | 'shape' | 'out'

const outlines = new WeakMap<Puzzle, readonly string[]>()

/** `[24 * piece + rotation]`: the outlines that the placement shows, as text. */
function outlinesOf(puzzle: Puzzle): readonly string[] {
  const known = outlines.get(puzzle)
  if (known) return known
  const found = puzzle.pieces.flatMap((piece) =>
    Array.from({ length: ROTATION_COUNT }, (_, r) =>
      piece.faces
        .map(({ polygon, corners }) =>
          (corners ?? polygon)
            .map((corner) =>
              placed(puzzle.cores[piece.core], r, corner)
                .map((c) => Math.round(c * 1e5) + 0)
                .join(),
            )
            .sort()
            .join(';'),
        )
        .sort()
        .join('|'),
    ),
  )
  outlines.set(puzzle, found)
  return found
}

/** How a piece with a rotation fits its slot, the puzzle held as its definition holds it. */
export function fitOf(puzzle: Puzzle, piece: number, rotation: number): Fit {
  const at = 24 * piece + rotation
  const home = puzzle.slot[at]
  if (home >= puzzle.pieces.length) return 'out'
  if (puzzle.look[at] === puzzle.look[24 * home]) return 'home'
  const shown = outlinesOf(puzzle)
  return shown[at] === shown[24 * home] ? 'shape' : 'out'
}

/** Whether some placement that the mechanism allows shows a wrong outline. */
export const hasShapes = (puzzle: Puzzle, reach: readonly (readonly number[])[]): boolean =>
  puzzle.pieces.some((_, p) => reach[p].some((r) => fitOf(puzzle, p, r) === 'out'))

/** What a turn would carry, before it is made. */
export const carriedBy = (puzzle: Puzzle, state: State, turn: Turn): number[] =>
  puzzle.pieces.flatMap((_, p) => (puzzle.carry[turn.grip][24 * p + state[p]] === IN ? [p] : []))
