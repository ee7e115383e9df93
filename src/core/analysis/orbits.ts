/**
 * Orbits of places under the turns of the frame, and the orientation of a piece in a place.
 *
 * For each place q of an orbit a reference rotation c(q) carries the orbit's first place to q. A
 * piece with home p and rotation r at place q is oriented by c(q)' r c(p), an element of the
 * rotations that keep the first place where it is. A turn multiplies this by an element that depends
 * on the place alone, so permutation and orientation are separate coordinates (a wreath product).
 */
import { closeRotations, IN, type Puzzle, type Turn } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../rotation'
import { start, turnFreely, type State } from '../state'
import { frameOf } from './frame'

export interface Orbit {
  /** Places, as the pieces whose homes they are. */
  readonly places: readonly number[]
  /** c(q), in the order of `places`. */
  readonly reference: readonly Rotation[]
  /** The rotations a piece can have in the first place, identity first. */
  readonly orientations: readonly Rotation[]
}

/** Where a turn takes what is in a place: the place itself if it is out of the slab. */
export const movedPlace = (puzzle: Puzzle, turn: Turn, place: number): number =>
  puzzle.carry[turn.grip][24 * place] === IN ? puzzle.place[24 * place + turn.rotation] : place

/** What a turn does to whatever fills each place: the rotation it gets there. */
export const moveOf = (puzzle: Puzzle, turn: Turn): State =>
  turnFreely(puzzle, start(puzzle), turn, start(puzzle))

/** The orbits of all places but that of the frame. */
export const orbitsOf = (puzzle: Puzzle): Orbit[] =>
  orbitsUnder(
    puzzle,
    frameOf(puzzle).turns.map((turn) => moveOf(puzzle, turn)),
    frameOf(puzzle).piece,
  )

/** The orbits of all places but one, under moves that take places to places. */
export function orbitsUnder(
  puzzle: Puzzle,
  moves: readonly State[],
  fixed: number | undefined,
): Orbit[] {
  const seen = new Set<number>(fixed === undefined ? [] : [fixed])
  const orbits: Orbit[] = []
  puzzle.pieces.forEach((_, first) => {
    if (seen.has(first)) return
    const places = [first]
    const reference = [IDENTITY]
    const loops: Rotation[] = []
    for (let i = 0; i < places.length; i++)
      for (const move of moves) {
        const place = places[i]
        const to = puzzle.place[24 * place + move[place]]
        const carried = multiply(move[place], reference[i])
        const index = places.indexOf(to)
        if (index < 0) {
          places.push(to)
          reference.push(carried)
        } else loops.push(multiply(INVERSE[reference[index]], carried))
      }
    places.forEach((place) => seen.add(place))
    orbits.push({ places, reference, orientations: closeRotations(loops) })
  })
  return orbits
}
