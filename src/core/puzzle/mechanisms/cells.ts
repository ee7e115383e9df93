/** Unit cells: what layered boxes, capped cores and conjoined boxes are made of. */
import { bigCube } from '../../geometry/polyhedron'
import { add } from '../../geometry/vector'
import type { Vector } from '../../rotation'
import { DIRECTIONS, type Direction, type FaceName } from '../directions'
import type { OuterFace } from '../mechanism'

export type FaceColours = Readonly<Record<FaceName, string>>

export const along = (n: number): number[] => Array.from({ length: n }, (_, i) => i - (n - 1) / 2)

/** The middles of all cells of a box, by x, then y, then z. */
export function boxCells(size: Vector, centre: Vector = [0, 0, 0]): Vector[] {
  const [xs, ys, zs] = size.map(along)
  return xs.flatMap((x) => ys.flatMap((y) => zs.map((z) => add(centre, [x, y, z]))))
}

const UNIT = bigCube(0.5)

/** Directions in which a cell has no neighbour among the given cells. */
export function openDirections(cell: Vector, cells: ReadonlySet<string>): Direction[] {
  return DIRECTIONS.filter(({ vector }) => !cells.has(add(cell, vector).join()))
}

/** A unit square, anticlockwise as seen from outside. */
function square(cell: Vector, { vector }: Direction): Vector[] {
  const facet = UNIT.find(({ normal }) => normal.every((c, i) => c === vector[i]))
  return (facet?.polygon ?? []).map((corner) => add(cell, corner))
}

/** The coloured outer faces of a cell. */
export const cellFaces = (
  cell: Vector,
  cells: ReadonlySet<string>,
  colours: FaceColours,
): OuterFace[] =>
  openDirections(cell, cells).map((direction) => ({
    colour: colours[direction.name],
    normal: direction.vector,
    polygon: square(cell, direction),
  }))

/** The six squares of a cell, whatever their neighbours. */
export const cellBody = (cell: Vector): Vector[][] =>
  DIRECTIONS.map((direction) => square(cell, direction))

/** What a piece of layered cells is called by how many sides of the mechanism it lies at. */
export const roleOf = (sides: number): string =>
  ['inside', 'centre', 'edge', 'corner', 'end', 'end', 'cell'][sides]

export const lettersOf = (directions: readonly Direction[]): string =>
  directions.map(({ letter }) => letter).join('')
