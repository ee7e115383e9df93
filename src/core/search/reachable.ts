/** Whether turns lead from the finished puzzle to a state. */
import { orbitsOf } from '../analysis/orbits'
import type { Puzzle } from '../puzzle/compile'
import type { State } from '../state'
import { coordinatesOf } from './coordinates'

/**
 * Decided for puzzles with one orbit of pieces, whose arrangement and orientation are independent:
 * a state is reachable if both have a number. Larger puzzles are not judged here and count as
 * reachable.
 */
export const isReachable = (puzzle: Puzzle, state: State): boolean =>
  orbitsOf(puzzle).length > 1 || !Number.isNaN(coordinatesOf(puzzle).indexOf(state))
