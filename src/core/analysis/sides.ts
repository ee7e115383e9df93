/**
 * The sides of a finished puzzle, by the names that its definition gives them: those of a box look along
 * the axes, those of a tetrahedron where its faces are. What a whole-puzzle turn does with them.
 */
import { dot, unit } from '../geometry/vector'
import type { Puzzle } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import { rotate, type Rotation, type Vector } from '../rotation'

const known = new WeakMap<Puzzle, ReadonlyMap<Direction, Vector>>()

/** The outward direction of each side, in the order of `DIRECTIONS`; sides that show no face are left out. */
export function sidesOf(puzzle: Puzzle): ReadonlyMap<Direction, Vector> {
  const found = known.get(puzzle)
  if (found) return found
  const sides =
    puzzle.definition.mechanism.kind === 'tetrahedron'
      ? facesNamed(puzzle)
      : new Map(DIRECTIONS.map((side) => [side, side.vector]))
  known.set(puzzle, sides)
  return sides
}

/** Whether each side shows one colour when finished, so that it can be called by it. */
export const hasColouredSides = ({ definition }: Puzzle): boolean => definition.solid === undefined

const same = (a: Vector, b: Vector): boolean => dot(a, b) > 1 - 1e-6

/** Each face under the name that has its colour and, in the picture, lies nearest to where it looks. */
function facesNamed(puzzle: Puzzle): Map<Direction, Vector> {
  const { definition, pieces } = puzzle
  const pose = poseOf(definition)
  const normals = new Map(
    pieces.flatMap(({ faces }) =>
      faces.map(({ colour, normal }) => [colour, unit(normal)] as const),
    ),
  )
  const named = [...normals].map(([colour, vector]): [Direction, Vector] => {
    const shown = posed(pose, vector)
    const names = DIRECTIONS.filter(({ name }) => definition.faces[name] === colour)
    const nearest = names.reduce((a, b) => (dot(b.vector, shown) > dot(a.vector, shown) ? b : a))
    return [nearest, vector]
  })
  return new Map(named.sort(([a], [b]) => DIRECTIONS.indexOf(a) - DIRECTIONS.indexOf(b)))
}

/** The side along which a face looks; undefined if it looks between the sides. */
export const sideAlong = (puzzle: Puzzle, normal: Vector): Direction | undefined =>
  [...sidesOf(puzzle)].find(([, vector]) => same(unit(vector), unit(normal)))?.[0]

/** The side that a rotation brings a side to; itself where the puzzle has none there. */
export function turnSide(puzzle: Puzzle, rotation: Rotation, side: Direction): Direction {
  const sides = sidesOf(puzzle)
  const from = sides.get(side)
  if (!from) return side
  const image = rotate(rotation, from)
  return [...sides].find(([, vector]) => same(vector, image))?.[0] ?? side
}

/** The side that looks the other way, where the puzzle has a face there. */
export function sideOpposite(puzzle: Puzzle, side: Direction): Direction | undefined {
  const sides = sidesOf(puzzle)
  const from = sides.get(side)
  return from && [...sides].find(([, vector]) => dot(vector, from) < -1 + 1e-6)?.[0]
}

/**
 * The pieces of the outer layer on a side of the finished puzzle: in a solid by where the mechanism has them,
 * whatever they show; else those with a sticker there.
 */
export function piecesShowing(puzzle: Puzzle, side: Direction): number[] {
  const vector = sidesOf(puzzle).get(side)
  if (!vector) return []
  const { mechanism, solid } = puzzle.definition
  if (solid && mechanism.kind === 'box') {
    const heights = puzzle.pieces.map(({ cells }) =>
      Math.max(...cells.map((cell) => dot(cell, vector))),
    )
    const outermost = Math.max(...heights)
    return heights.flatMap((height, p) => (height > outermost - 1e-6 ? [p] : []))
  }
  return puzzle.pieces.flatMap(({ faces }, p) =>
    faces.some(({ normal }) => same(unit(normal), vector)) ? [p] : [],
  )
}
