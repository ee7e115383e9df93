/** Layered boxes: layers at right angles; a layer whose outline is square turns by quarters. */
import type { HalfSpace } from '../../geometry/polyhedron'
import type { Vector } from '../../rotation'
import { DIRECTIONS, directionOfLetter, type Direction } from '../directions'
import { symmetriesOf, withAmountsIn, type Grip, type Mechanism, type Part } from '../mechanism'
import {
  boxCells,
  cellBody,
  cellFaces,
  lettersOf,
  openDirections,
  roleOf,
  type FaceColours,
} from './cells'

export function boxMechanism(size: Vector, colours: FaceColours, middles?: Vector): Mechanism {
  const plain = plainBox(size, colours, middles)
  return middles ? stretched(plain, middles) : plain
}

/** The same box with its middle layers as thick as that. */
function stretched(box: Mechanism, middles: Vector): Mechanism {
  const heights = (axis: number) => (height: number) => {
    const more = (middles[axis] - 1) / 2
    // Within the middle layer in proportion; beyond it one cell is as thick as another.
    return Math.abs(height) <= 0.5 ? height * middles[axis] : height + Math.sign(height) * more
  }
  const point = (v: Vector) => v.map((c, axis) => heights(axis)(c)) as unknown as Vector
  const bound = ({ axis }: Pick<Grip, 'axis'>, at: number | null) =>
    at === null ? null : heights(axisOf(axis))(at)
  return {
    ...box,
    parts: box.parts.map((part) => ({
      ...part,
      points: part.points.map(point),
      region: part.region.map((half) => ({
        ...half,
        at: heights(axisOf(half.normal))(half.at),
      })),
      faces: part.faces.map((face) => ({ ...face, polygon: face.polygon.map(point) })),
      body: part.body.map((facet) => facet.map(point)),
    })),
    grips: box.grips.map((grip) => ({
      ...grip,
      from: bound(grip, grip.from),
      to: bound(grip, grip.to),
    })),
    still: point(box.still),
    shape: box.shape?.map((half) => ({ ...half, at: heights(axisOf(half.normal))(half.at) })),
  }
}

function plainBox(size: Vector, colours: FaceColours, middles: Vector = [1, 1, 1]): Mechanism {
  const cells = boxCells(size)
  const all = new Set(cells.map(String))
  const parts = cells.map((cell): Part => {
    const open = openDirections(cell, all)
    return {
      points: [cell],
      core: 0,
      name: lettersOf(open),
      role: roleOf(open.length),
      region: layerRegion(cell, size.map((n) => n / 2 - 0.5) as unknown as Vector),
      faces: cellFaces(cell, all, colours),
      body: cellBody(cell),
    }
  })
  // Which outlines are square is a matter of thickness.
  const thick = size.map((n, axis) => n + middles[axis] - 1) as unknown as Vector
  const layers = DIRECTIONS.flatMap((direction) => layerGrips(size, thick, direction))
  const symmetries = symmetriesOf(parts, layers)
  const inner = [...MIDDLES, ...WHOLES].flatMap((name) => sliceGrip(size, name))
  return {
    cores: [[0, 0, 0]],
    parts,
    grips: [...layers, ...inner.flatMap((grip) => withAmountsIn(symmetries, grip))],
    // The core where the layers are odd, else the end to the left, at the bottom, at the back.
    still: size.map((n) => (n % 2 === 1 ? 0 : -(n - 1) / 2)) as unknown as Vector,
    shape: DIRECTIONS.map(({ vector, name }) => ({
      normal: vector,
      at: size[axisOf(vector)] / 2,
      colour: colours[name],
    })),
  }
}

/** Between the cuts beside a cell; unbounded where it is the outermost (at `outer` from the middle). */
export function layerRegion(cell: Vector, outer: Vector): HalfSpace[] {
  return DIRECTIONS.flatMap(({ vector }) => {
    const axis = axisOf(vector)
    const height = cell[axis] * vector[axis]
    return height === outer[axis] ? [] : [{ normal: vector, at: height + 0.5 }]
  })
}

/** Middle slices turn like the face named beside them; whole-puzzle rotations likewise. */
export const MIDDLES = ['M', 'E', 'S'] as const
export const WHOLES = ['x', 'y', 'z'] as const
const LIKE = { M: 'L', E: 'D', S: 'F', x: 'R', y: 'U', z: 'F' } as const

function layerGrips(size: Vector, thick: Vector, direction: Direction): Grip[] {
  const axis = axisOf(direction.vector)
  const n = size[axis]
  const isSquare = thick[(axis + 1) % 3] === thick[(axis + 2) % 3]
  const grips: Grip[] = []
  for (let first = 1; first <= n; first++)
    for (let last = first; last <= n; last++) {
      if (first === 1 && last === n) continue
      const from = last === n ? null : n / 2 - last
      const to = first === 1 ? null : n / 2 - first + 1
      grips.push(
        slab(
          rangeName(first, last) + direction.letter,
          direction,
          from,
          to,
          isSquare ? [1, 2, 3] : [2],
        ),
      )
    }
  return grips
}

export const rangeName = (first: number, last: number): string =>
  first === last ? (first === 1 ? '' : `${first}`) : `${first}-${last}`

/** A middle slice, where there is one, or the whole puzzle, before amounts are judged. */
export function sliceGrip(size: Vector, name: keyof typeof LIKE): Grip[] {
  const direction = directionOfLetter(LIKE[name])
  const isMiddle = (MIDDLES as readonly string[]).includes(name)
  const n = size[axisOf(direction.vector)]
  if (isMiddle && (n % 2 === 0 || n === 1)) return []
  const [from, to] = isMiddle ? [-0.5, 0.5] : [null, null]
  return [slab(name, direction, from, to, [1, 2, 3])]
}

export function slab(
  name: string,
  direction: Direction,
  from: number | null,
  to: number | null,
  amounts: readonly number[],
  extra: Partial<Grip> = {},
): Grip {
  return {
    name,
    core: 0,
    axis: direction.vector,
    from,
    to,
    unitDegrees: 90,
    amounts,
    condition: null,
    ...extra,
  }
}

export const axisOf = (v: Vector): number => v.findIndex((c) => c !== 0)
