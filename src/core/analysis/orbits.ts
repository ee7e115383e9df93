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

/** The orbits of all places but that of the frame. */
export function orbitsOf(puzzle: Puzzle, turns = frameOf(puzzle).turns): Orbit[] {
  const { piece: fixed } = frameOf(puzzle)
  const seen = new Set<number>(fixed === undefined ? [] : [fixed])
  const orbits: Orbit[] = []
  puzzle.pieces.forEach((_, first) => {
    if (seen.has(first)) return
    const places = [first]
    const reference = [IDENTITY]
    const loops: Rotation[] = []
    for (let i = 0; i < places.length; i++)
      for (const turn of turns) {
        const to = movedPlace(puzzle, turn, places[i])
        const carried =
          puzzle.carry[turn.grip][24 * places[i]] === IN
            ? multiply(turn.rotation, reference[i])
            : reference[i]
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
