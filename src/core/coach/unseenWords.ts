/**
 * The strange moment of a solid: a piece looks right and is worked on all the same, because it is turned
 * unseen or an equal one belongs there. Said at the step that mends it, with the piece named.
 */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { sideOpposite, turnSide } from '../analysis/sides'
import { who } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { Must } from '../schools/school'
import { looksHome, turnFreely, type State } from '../state'
import { baseKind, capital } from '../phrases'
import { pieceMeets } from './goal'

export interface UnseenScene {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  readonly base: Direction
  /** As it is read, once the hold is taken. */
  readonly state: State
  readonly frame: Rotation
}

/** The turns of the layer opposite the base. */
export function turnsOfLast(puzzle: Puzzle, base: Direction, frame: Rotation): Turn[] {
  const last = sideOpposite(puzzle, base)
  const letter = last && turnSide(puzzle, frame, last).letter
  return puzzle.turns.filter(({ grip, whole }) => !whole && puzzle.grips[grip].name === letter)
}

/** Whether a piece looks home, if need be after a turn of the last layer. */
export function couldFit(
  { puzzle, base, state, frame }: Omit<UnseenScene, 'scheme'>,
  piece: number,
): boolean {
  const fits = (at: State) => looksHome(puzzle, piece, multiply(INVERSE[frame], at[piece]))
  return (
    fits(state) ||
    turnsOfLast(puzzle, base, frame).some((turn) =>
      fits(turnFreely(puzzle, state, turn, new Uint8Array(state.length))),
    )
  )
}

/** Of some pieces, those that look as a stage wants them and are not. */
export function deceiving(
  scene: Omit<UnseenScene, 'scheme'>,
  pieces: readonly number[],
  must: Must,
): number[] {
  const { puzzle, base, state, frame } = scene
  const condition = { layer: 'last', must, pieces } as const
  return pieces.filter((p) => {
    if (pieceMeets(puzzle, condition, base, state, p, frame)) return false
    return must === 'faced'
      ? couldFit(scene, p)
      : looksHome(puzzle, p, multiply(INVERSE[frame], state[p]))
  })
}

/** What is said of each piece that deceives; nothing where none does. */
export function unseenWords(scene: UnseenScene, pieces: readonly number[], must: Must): string[] {
  const { puzzle, scheme } = scene
  const found = deceiving(scene, pieces, must)
  const { unseen } = lookAlikesOf(puzzle)
  const kind = baseKind(puzzle.pieces[pieces[0]].kind)
  const right = must === 'faced' ? 'right' : 'home'
  const told = found.map((p) => {
    const name = capital(who(puzzle, scheme, p))
    if (unseen[p].length > 1)
      return `${name} would look ${right} turned either way. It is turned unseen here, for no ${kind} can be turned alone.`
    return must === 'faced'
      ? `${name} would fit the place of an equal ${kind}. It belongs to another, or odd and even do not come out.`
      : `${name} looks home, but an equal ${kind} belongs there, or odd and even do not come out.`
  })
  return [...new Set(told)]
}
