/** The caps of a core that has some, and the order in which they are done. */
import { average, dot } from '../geometry/vector'
import { DIRECTIONS, opposite, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'

/** Those across from each other in a row, so that with the core they make a box; none where there are no caps. */
export function capsInOrder({ definition: { mechanism } }: Puzzle): readonly Direction[] {
  if (mechanism.kind !== 'capped') return []
  const caps = DIRECTIONS.filter(({ name }) => mechanism.caps.includes(name))
  const isPaired = (side: Direction) => caps.includes(opposite(side))
  return [...caps.filter(isPaired), ...caps.filter((side) => !isPaired(side))]
}

/** Whether a piece is part of the cap on that side when all is finished. */
export const isInCap = ({ pieces }: Puzzle, piece: number, { vector }: Direction): boolean =>
  pieces[piece].kind.startsWith('cap ') && dot(average(pieces[piece].cells), vector) > 1.5

/** The cap that is meant: by its number, or the last one. */
export const capMeant = (puzzle: Puzzle, cap: number | 'last'): Direction | undefined =>
  cap === 'last' ? capsInOrder(puzzle).at(-1) : capsInOrder(puzzle)[cap - 1]
