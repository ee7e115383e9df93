/**
 * The outer faces of a piece as they are drawn. Cells that are glued share one plate where their faces lie
 * side by side in one plane and colour: such faces are joined along the edges that they share.
 */
import { areaVector } from '../geometry/polyhedron'
import { cross, dot, subtract } from '../geometry/vector'
import type { Vector } from '../rotation'
import type { Piece } from './compile'
import type { OuterFace } from './mechanism'

const known = new WeakMap<Piece, readonly OuterFace[]>()

export function drawnFaces(piece: Piece): readonly OuterFace[] {
  const found = known.get(piece)
  if (found) return found
  const drawn = piece.cells.length > 1 ? joined(piece.faces) : piece.faces
  known.set(piece, drawn)
  return drawn
}

const key = (v: Vector): string => v.map((c) => Math.round(c * 1e6) + 0).join()

function joined(faces: readonly OuterFace[]): OuterFace[] {
  const planes = new Map<string, OuterFace[]>()
  for (const face of faces) {
    const at = Math.round(dot(face.normal, face.polygon[0]) * 1e6)
    const name = `${face.colour} ${key(face.normal)} ${at}`
    planes.set(name, [...(planes.get(name) ?? []), face])
  }
  return [...planes.values()].flatMap(joinedInPlane)
}

/** Faces of one plane: those that hang together become one, unless it would have a hole. */
function joinedInPlane(faces: readonly OuterFace[]): OuterFace[] {
  if (faces.length === 1 || faces.some(({ arc }) => arc)) return [...faces]
  const edges = new Map<string, { from: Vector; to: Vector }>()
  for (const { polygon } of faces)
    polygon.forEach((from, i) => {
      const to = polygon[(i + 1) % polygon.length]
      // An edge that two faces share is run through once each way, and is none of the joined outline.
      if (!edges.delete(`${key(to)}|${key(from)}`))
        edges.set(`${key(from)}|${key(to)}`, { from, to })
    })
  const next = new Map<string, Vector>()
  for (const { from, to } of edges.values()) {
    // Two outlines that touch in a corner cannot be followed.
    if (next.has(key(from))) return [...faces]
    next.set(key(from), to)
  }
  const outlines: Vector[][] = []
  while (next.size > 0) {
    const outline: Vector[] = []
    const [first] = next.keys()
    for (let at = first; next.has(at);) {
      const to = next.get(at) as Vector
      next.delete(at)
      outline.push(to)
      at = key(to)
    }
    outlines.push(withoutStraight(outline))
  }
  const [{ colour, normal }] = faces
  // An outline that runs the other way round is a hole.
  if (outlines.some((outline) => dot(areaVector(outline), normal) <= 0)) return [...faces]
  return outlines.map((polygon) => ({ colour, normal, polygon }))
}

/** Corners where the outline goes straight on are none. */
const withoutStraight = (outline: readonly Vector[]): Vector[] =>
  outline.filter((corner, i) => {
    const before = outline[(i + outline.length - 1) % outline.length]
    const after = outline[(i + 1) % outline.length]
    const turn = cross(subtract(corner, before), subtract(after, corner))
    return dot(turn, turn) > 1e-12
  })
