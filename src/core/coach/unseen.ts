/**
 * The strange moment of a solid: a piece looks right and is worked on all the same, because it is turned
 * unseen or an equal one belongs there. Said at the step that mends it, with the piece named.
 */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { sideOpposite, turnSide } from '../analysis/sides'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { Must } from '../schools/school'
import { looksHome, turnFreely, type State } from '../state'
import type { Of } from '../claims/claim'
import { pieceMeets } from './goal'

export interface UnseenScene {
  readonly puzzle: Puzzle
  readonly base: Direction
  /** As it is read, once the hold is taken. */
  readonly state: State
  readonly frame: Rotation
}

/** The turns of the layer of a side. */
function turnsOf(puzzle: Puzzle, side: Direction | undefined, frame: Rotation): Turn[] {
  const letter = side && turnSide(puzzle, frame, side).letter
  return puzzle.turns.filter(({ grip, whole }) => !whole && puzzle.grips[grip].name === letter)
}

/** Whether a piece looks home, if need be after a turn of a side's layer: of the last one if none is given. */
export function couldFit(
  { puzzle, base, state, frame }: UnseenScene,
  piece: number,
  side = sideOpposite(puzzle, base),
): boolean {
  const fits = (at: State) => looksHome(puzzle, piece, multiply(INVERSE[frame], at[piece]))
  return (
    fits(state) ||
    turnsOf(puzzle, side, frame).some((turn) =>
      fits(turnFreely(puzzle, state, turn, new Uint8Array(state.length))),
    )
  )
}

/** Of some pieces, those that look as a stage wants them and are not. */
export function deceiving(scene: UnseenScene, pieces: readonly number[], must: Must): number[] {
  const { puzzle, base, state, frame } = scene
  const condition = { layer: 'last', must, pieces } as const
  return pieces.filter((p) => {
    if (pieceMeets(puzzle, condition, base, state, p, frame)) return false
    return must === 'faced'
      ? couldFit(scene, p)
      : looksHome(puzzle, p, multiply(INVERSE[frame], state[p]))
  })
}

/** What is claimed of each piece that deceives; nothing where none does. */
export function deceptions(
  scene: UnseenScene,
  pieces: readonly number[],
  must: Must,
): Of<'deceives'>[] {
  const { puzzle } = scene
  const { unseen } = lookAlikesOf(puzzle)
  return deceiving(scene, pieces, must).map((p) => ({
    kind: 'deceives',
    piece: puzzle.pieces[p].id,
    how: unseen[p].length > 1 ? 'unseen' : 'twin',
    seems: must === 'faced' ? 'fitting' : 'home',
  }))
}
