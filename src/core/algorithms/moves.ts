/**
 * States in shape as what makes them: done after one another, and undone. A turn rotates whatever piece lies in a
 * place, so a state acts on another by the places.
 */
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { placeOf, type State } from '../state'

/** What `move` makes of `state`: both as they are made of the finished puzzle. */
export const followedBy = (puzzle: Puzzle, state: State, move: State): State =>
  state.map((r, p) => multiply(move[placeOf(puzzle, state, p)], r))

/** What takes a state back. */
export function undoing(puzzle: Puzzle, state: State): State {
  const back = new Uint8Array(state.length)
  state.forEach((r, p) => (back[placeOf(puzzle, state, p)] = INVERSE[r]))
  return back
}

/** The same done in another hold: what was done on the right is done wherever the right side has gone. */
export function inHold(puzzle: Puzzle, move: State, hold: Rotation): State {
  const held = new Uint8Array(move.length)
  move.forEach((r, p) => {
    held[puzzle.place[24 * p + hold]] = multiply(hold, multiply(r, INVERSE[hold]))
  })
  return held
}
