/** The caps of a core that has some, and the order in which they are done. */
import { average, dot, subtract } from '../geometry/vector'
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

/** Whether two pieces of the finished puzzle lie side by side. */
export function areNeighbours({ pieces }: Puzzle, a: number, b: number): boolean {
  const step = subtract(average(pieces[a].cells), average(pieces[b].cells))
  return dot(step, step) < 1.5
}

/** How a block grows in a cap: a corner with its edge, two by two, two by three, all; its pieces but for the centre. */
export type Growth = readonly (readonly number[])[]

/** Every way in which a block can grow there. */
export function growthsIn(puzzle: Puzzle, side: Direction): readonly Growth[] {
  const own = puzzle.pieces.flatMap((_, p) => (isInCap(puzzle, p, side) ? [p] : []))
  const corners = own.filter((p) => puzzle.pieces[p].kind === 'cap corner')
  const edges = own.filter((p) => puzzle.pieces[p].kind === 'cap edge')
  const isBeside = (a: number, b: number) => areNeighbours(puzzle, a, b)
  return corners.flatMap((corner) => {
    const sides = edges.filter((edge) => isBeside(edge, corner))
    return sides.flatMap((edge) => {
      const square = [corner, edge, ...sides.filter((each) => each !== edge)]
      return sides.map((along) => {
        const next = corners.filter((each) => each !== corner && isBeside(each, along))
        const beyond = edges.filter((each) => each !== along && isBeside(each, next[0]))
        return [[corner, edge], square, [...square, ...next, ...beyond], [...corners, ...edges]]
      })
    })
  })
}
