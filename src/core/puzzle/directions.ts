/** The six face directions, their letters and the words a solver uses for them. */
import { rotate, type Rotation, type Vector } from '../rotation'

export type FaceLetter = 'U' | 'D' | 'F' | 'B' | 'R' | 'L'
export type FaceName = 'up' | 'down' | 'front' | 'back' | 'right' | 'left'

export interface Direction {
  readonly letter: FaceLetter
  readonly name: FaceName
  readonly vector: Vector
  /** Where a piece sits: 'at the top', 'on the right'. */
  readonly at: string
  /** Which way a sticker looks: 'up', 'to the right'. */
  readonly toward: string
  /** Adjective of a place: 'top right front'. */
  readonly adjective: string
}

/** In the order in which a place is named: U or D, then F or B, then R or L. */
export const DIRECTIONS: readonly Direction[] = [
  d('U', 'up', [0, 1, 0], 'at the top', 'up', 'top'),
  d('D', 'down', [0, -1, 0], 'at the bottom', 'down', 'bottom'),
  d('F', 'front', [0, 0, 1], 'in front', 'to the front', 'front'),
  d('B', 'back', [0, 0, -1], 'at the back', 'to the back', 'back'),
  d('R', 'right', [1, 0, 0], 'on the right', 'to the right', 'right'),
  d('L', 'left', [-1, 0, 0], 'on the left', 'to the left', 'left'),
]

function d(
  letter: FaceLetter,
  name: FaceName,
  vector: Vector,
  at: string,
  toward: string,
  adjective: string,
): Direction {
  return { letter, name, vector, at, toward, adjective }
}

const byLetter = new Map(DIRECTIONS.map((direction) => [direction.letter as string, direction]))

export function directionOfLetter(letter: string): Direction {
  const found = byLetter.get(letter)
  if (!found) throw new Error(`no direction has the letter ${letter}`)
  return found
}

export function directionOfName(name: string): Direction {
  const found = DIRECTIONS.find((direction) => direction.name === name)
  if (!found) throw new Error(`no direction is called ${name}`)
  return found
}

/** The nine-fold sum tells the 27 small vectors apart; only face directions are kept. */
const byVector = new Map(
  DIRECTIONS.map((direction) => {
    const [x, y, z] = direction.vector
    return [9 * x + 3 * y + z, direction] as const
  }),
)

export function directionOfVector(v: Vector): Direction {
  const found = byVector.get(9 * v[0] + 3 * v[1] + v[2])
  if (!found) throw new Error(`(${v.join(', ')}) is not a face direction`)
  return found
}

export const opposite = (direction: Direction): Direction =>
  directionOfVector([-direction.vector[0] + 0, -direction.vector[1] + 0, -direction.vector[2] + 0])

/** Where a direction points after the rotation. */
export const turnDirection = (rotation: Rotation, direction: Direction): Direction =>
  directionOfVector(rotate(rotation, direction.vector))
