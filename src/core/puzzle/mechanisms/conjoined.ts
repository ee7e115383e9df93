/**
 * Boxes that share a rigid column. Each turns about its own core; the shared column never moves and
 * never is cut, so a layer that holds a part of it, or a cell of the other box, is left out.
 */
import { average, subtract } from '../../geometry/vector'
import type { Vector } from '../../rotation'
import { DIRECTIONS } from '../directions'
import { inSlab, type Grip, type Mechanism, type Part } from '../mechanism'
import { axisOf, rangeName, slab } from './box'
import {
  boxCells,
  cellBody,
  cellFaces,
  lettersOf,
  openDirections,
  roleOf,
  type FaceColours,
} from './cells'

export interface ConjoinedBox {
  readonly size: Vector
  readonly centre: Vector
}

export function conjoinedMechanism(
  boxes: readonly ConjoinedBox[],
  colours: FaceColours,
): Mechanism {
  const owned = boxes.map(({ size, centre }) => boxCells(size, centre))
  const everyCell = owned.flat()
  const all = new Set(everyCell.map(String))
  const counts = new Map<string, number>()
  for (const cell of everyCell) counts.set(String(cell), (counts.get(String(cell)) ?? 0) + 1)
  const isShared = (cell: Vector) => (counts.get(String(cell)) ?? 0) > 1
  const shared = owned[0].filter(isShared)
  const partOf = (points: readonly Vector[], core: number, name: string, role: string): Part => ({
    points,
    core,
    name,
    role,
    region: [],
    faces: points.flatMap((cell) => cellFaces(cell, all, colours)),
    body: points.flatMap(cellBody),
  })
  const own = owned.flatMap((cells, core) => {
    const mine = new Set(cells.map(String))
    return cells
      .filter((cell) => !isShared(cell))
      .map((cell) => {
        const open = openDirections(cell, mine)
        return partOf([cell], core, `${core + 1}.${lettersOf(open)}`, roleOf(open.length))
      })
  })
  return {
    cores: boxes.map(({ centre }) => centre),
    parts: [partOf(shared, 0, 'shared', 'shared column'), ...own],
    grips: boxes.flatMap((box, core) =>
      layersOf(box, core).flatMap((fromOutside) => {
        const isFree = (grip: Grip) =>
          everyCell.every((cell) => !inSlab(grip, cell) || (!isShared(cell) && isOf(box, cell)))
        // Layers are counted from a side that can turn itself.
        return isFree(fromOutside[0]) ? fromOutside.filter(isFree) : []
      }),
    ),
    still: shared.length > 0 ? average(shared) : [0, 0, 0],
  }
}

const isOf = ({ size, centre }: ConjoinedBox, cell: Vector): boolean =>
  subtract(cell, centre).every((c, i) => Math.abs(c) <= (size[i] - 1) / 2)

/** For each side of a box its layers, single and joined, counted from the outside, with thresholds in the space that all share. */
function layersOf({ size, centre }: ConjoinedBox, core: number): Grip[][] {
  return DIRECTIONS.map((direction) => {
    const axis = axisOf(direction.vector)
    const n = size[axis]
    const isSquare = size[(axis + 1) % 3] === size[(axis + 2) % 3]
    const middle = direction.vector[axis] * centre[axis]
    return Array.from({ length: n }, (_, first) =>
      Array.from({ length: n - first }, (__, more) => {
        const [top, bottom] = [first + 1, first + 1 + more]
        const from = middle + n / 2 - bottom
        const to = top === 1 ? null : middle + n / 2 - top + 1
        const name = rangeName(top, bottom) + direction.letter
        return slab(name, direction, from, to, isSquare ? [1, 2, 3] : [2], { core })
      }),
    ).flat()
  })
}
