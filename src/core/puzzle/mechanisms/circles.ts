/**
 * A 3x3x3 with a circle about the middle of every face. The circle cuts each edge place into an outer
 * edge and a bit on either face, each corner place into an outer corner and three bits. A bit and the
 * centre sit a little higher than their neighbours along the axis of their own face, so that a slab
 * can take the outer ring without them: that is all there is to a free face.
 */
import { bigCube } from '../../geometry/polyhedron'
import { add, cross, scale } from '../../geometry/vector'
import type { Vector } from '../../rotation'
import { DIRECTIONS, type Direction, type FaceName } from '../directions'
import {
  symmetriesOf,
  withAmountsIn,
  type Mechanism,
  type OuterFace,
  type Part,
} from '../mechanism'
import { axisOf, slab, sliceGrip, WHOLES } from './box'
import { boxCells, lettersOf, openDirections, roleOf, type FaceColours } from './cells'

const CORE: Vector = [3, 3, 3]
/** How far a bit sits above its neighbours' centres. */
const RISE = 0.4
/** Beyond the corner of the centre (0.71), inside the edge of the face (1.5). */
export const CIRCLE_RADIUS = 1.2
/** How deep bits are drawn. */
const DEPTH = 0.28
const ARC_STEPS = 14
/** Where the faces of the cube meet. */
const EDGE = 1.5

export function circlesMechanism(locked: readonly FaceName[], colours: FaceColours): Mechanism {
  const cells = boxCells(CORE)
  const all = new Set(cells.map(String))
  const parts = cells.flatMap((cell): Part[] => {
    const open = openDirections(cell, all)
    if (open.length === 0) return []
    const role = roleOf(open.length)
    const name = lettersOf(open)
    const bits = open.map((side): Part => {
      const face = bitFace(cell, side, colours)
      return {
        points: [add(cell, scale(side.vector, RISE))],
        core: 0,
        name: open.length === 1 ? name : `${name}-${side.letter}`,
        role: open.length === 1 ? role : `${role} bit`,
        region: [],
        faces: [face],
        body: plate(face),
      }
    })
    if (open.length === 1) return bits
    const faces = open.map((side) => outerFace(cell, side, colours))
    const outer: Part = {
      points: [cell],
      core: 0,
      name,
      role: `outer ${role}`,
      region: [],
      faces,
      body: [...recessed(cell, open), ...faces.flatMap(plate)],
    }
    return [outer, ...bits]
  })
  const layers = DIRECTIONS.map((direction) =>
    slab(direction.letter, direction, 0.5, locked.includes(direction.name) ? null : 1.2, [1, 2, 3]),
  )
  const symmetries = symmetriesOf(parts, layers)
  const wholes = WHOLES.flatMap((name) => sliceGrip(CORE, name))
  return {
    cores: [[0, 0, 0]],
    parts,
    grips: [...layers, ...wholes.flatMap((grip) => withAmountsIn(symmetries, grip))],
    still: [0, 0, 0],
  }
}

/** Two directions across a face, so that u, v and the normal are right-handed. */
function across({ vector }: Direction): [Vector, Vector] {
  const u: Vector = vector[1] === 0 ? [0, 1, 0] : [0, 0, 1]
  return [u, cross(vector, u)]
}

/** Where the circle meets the line at distance `side` from the middle. */
const meets = (side: number): number => Math.sqrt(CIRCLE_RADIUS ** 2 - side ** 2)

/** The circle's points from one angle to another, ends included. */
function arcPoints(from: number, to: number): [number, number][] {
  return Array.from({ length: ARC_STEPS + 1 }, (_, k) => {
    const angle = from + ((to - from) * k) / ARC_STEPS
    return [CIRCLE_RADIUS * Math.cos(angle), CIRCLE_RADIUS * Math.sin(angle)]
  })
}

/** A face's share of a cell, cut by the circle; `a`, `b` are the cell's steps across the face. */
function cutFace(cell: Vector, side: Direction, colours: FaceColours, inner: boolean): OuterFace {
  const [u, v] = across(side)
  const axis = axisOf(side.vector)
  const dot = (w: Vector) => w.reduce((sum, c, i) => sum + (i === axis ? 0 : c * cell[i]), 0)
  const [a, b] = [dot(u), dot(v)]
  const near = 0.5
  const far = EDGE
  const m = meets(near)
  const angle = Math.atan2(near, m)
  let points: [number, number][]
  let corners: [number, number][]
  if (a === 0 && b === 0) {
    points = corners = [
      [-near, -near],
      [near, -near],
      [near, near],
      [-near, near],
    ]
  } else if (a === 0 || b === 0) {
    // Drawn for the edge at +u, then turned into place.
    const arc = arcPoints(-angle, angle)
    const straight: [number, number][] = inner
      ? [
          [near, near],
          [near, -near],
        ]
      : [
          [far, near],
          [far, -near],
        ]
    points = inner ? [...arc, ...straight] : [...straight.reverse(), ...arc.reverse()]
    corners = [arc[0], arc[ARC_STEPS], ...straight]
    const turn = ([x, y]: [number, number]): [number, number] =>
      a === 0 ? (b > 0 ? [-y, x] : [y, -x]) : a > 0 ? [x, y] : [-x, -y]
    points = points.map(turn)
    corners = corners.map(turn)
  } else {
    // Drawn for the corner at +u, +v, then turned into place.
    const arc = arcPoints(angle, Math.PI / 2 - angle)
    const straight: [number, number][] = inner
      ? [[near, near]]
      : [
          [far, near],
          [far, far],
          [near, far],
        ]
    points = inner ? [...arc, ...straight] : [...straight, ...[...arc].reverse()]
    corners = [arc[0], arc[ARC_STEPS], ...straight]
    const turn = ([x, y]: [number, number]): [number, number] =>
      a > 0 ? (b > 0 ? [x, y] : [y, -x]) : b > 0 ? [-y, x] : [-x, -y]
    points = points.map(turn)
    corners = corners.map(turn)
  }
  const middle = scale(side.vector, EDGE)
  const lift = ([x, y]: [number, number]): Vector => add(middle, add(scale(u, x), scale(v, y)))
  return {
    colour: colours[side.name],
    normal: side.vector,
    polygon: points.map(lift),
    corners: corners.map(lift),
    ...(a === 0 && b === 0 ? {} : { arc: { centre: middle, radius: CIRCLE_RADIUS } }),
  }
}

const bitFace = (cell: Vector, side: Direction, colours: FaceColours) =>
  cutFace(cell, side, colours, true)
const outerFace = (cell: Vector, side: Direction, colours: FaceColours) =>
  cutFace(cell, side, colours, false)

/** A flat piece under a face. */
function plate({ polygon, normal }: OuterFace): Vector[][] {
  const down = scale(normal, -DEPTH)
  const lower = polygon.map((corner) => add(corner, down))
  const walls = polygon.flatMap((corner, i) => {
    const j = (i + 1) % polygon.length
    // Where the plate ends at another face of the cube, that face's own plate closes it.
    const isRim = corner.some(
      (c, axis) => normal[axis] === 0 && Math.abs(c) === EDGE && polygon[j][axis] === c,
    )
    return isRim ? [] : [[corner, lower[i], lower[j], polygon[j]]]
  })
  return [[...polygon], [...lower].reverse(), ...walls]
}

/** The cell's cube, lowered where bits lie on it. */
function recessed(cell: Vector, open: readonly Direction[]): Vector[][] {
  return bigCube(0.5).map(({ polygon }) =>
    polygon.map((corner) =>
      open.reduce<Vector>(
        (point, { vector }) =>
          corner[axisOf(vector)] * vector[axisOf(vector)] > 0
            ? add(point, scale(vector, -DEPTH))
            : point,
        add(cell, corner),
      ),
    ),
  )
}
