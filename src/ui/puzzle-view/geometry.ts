/** The solids that pieces are drawn with: one mesh a piece, its edges cut off, its stickers on it. */
import { BufferAttribute, BufferGeometry, Color, ShapeUtils, Vector2 } from 'three'
import { areaVector } from '@/core/geometry/polyhedron'
import { innerRadius, inset, roomIn, stickerOutline } from '@/core/geometry/outline'
import { add, average, cross, dot, scale, subtract, unit } from '@/core/geometry/vector'
import { colourIn, type Scheme } from '@/core/puzzle/colours'
import type { Piece } from '@/core/puzzle/compile'
import { drawnFaces } from '@/core/puzzle/drawnFaces'
import type { OuterFace } from '@/core/puzzle/mechanism'
import type { Vector } from '@/core/rotation'

const BODY = '#14171f'
/** Faces of places where nothing has been entered yet. */
const BLANK = '#2b3140'
/** Air between pieces, and the width of the cut edge, in cells. */
const GAP = 0.008
const BEVEL = 0.05
/** How far stickers, rims and rings lie above the face, so that none hides another. */
const LIFT = { rim: 0.004, sticker: 0.008, mark: 0.014, ring: 0.05 }

type Polygon = readonly Vector[]
type Hue = readonly [number, number, number]

/** Corners of triangles with a normal and a hue each. */
class Triangles {
  readonly positions: number[] = []
  readonly normals: number[] = []
  readonly hues: number[] = []

  /** A flat outline, convex or not, facing along `normal`. */
  add(polygon: Polygon, normal: Vector, hue: Hue): void {
    for (const triangle of triangulate(polygon, normal))
      for (const corner of triangle) {
        this.positions.push(...corner)
        this.normals.push(...normal)
        this.hues.push(...hue)
      }
  }

  geometry(): BufferGeometry {
    const geometry = new BufferGeometry()
    const attribute = (values: number[]) => new BufferAttribute(new Float32Array(values), 3)
    geometry.setAttribute('position', attribute(this.positions))
    geometry.setAttribute('normal', attribute(this.normals))
    geometry.setAttribute('color', attribute(this.hues))
    return geometry
  }
}

/** Two directions across a plane, right-handed with its normal. */
function acrossPlane(normal: Vector): [Vector, Vector] {
  const up: Vector = Math.abs(normal[1]) < 0.9 ? [0, 1, 0] : [0, 0, -1]
  const u = unit(cross(up, normal))
  return [u, cross(normal, u)]
}

export function triangulate(
  polygon: Polygon,
  normal: Vector,
  holes: readonly Polygon[] = [],
): Vector[][] {
  if (polygon.length === 3 && holes.length === 0) return [[...polygon]]
  const [u, v] = acrossPlane(normal)
  const flat = (points: Polygon) => points.map((p) => new Vector2(dot(p, u), dot(p, v)))
  const all = [...polygon, ...holes.flat()]
  return ShapeUtils.triangulateShape(flat(polygon), holes.map(flat)).map((corners) =>
    corners.map((at) => all[at]),
  )
}

const hueOf = (shade: string): Hue => {
  const { r, g, b } = new Color(shade)
  return [r, g, b]
}

/**
 * A piece about its core: dark body with cut edges, stickers in the colours of a copy. Without a scheme
 * the faces are blank. `cut` is how far stickers stay from the edges.
 */
export function pieceGeometry(
  piece: Piece,
  core: Vector,
  cut: number,
  scheme?: Scheme,
): BufferGeometry {
  const triangles = new Triangles()
  const dark = hueOf(BODY)
  const home = (polygon: Polygon) => polygon.map((corner) => subtract(corner, core))
  for (const facet of bevelled(piece.body.map(home)))
    triangles.add(facet, unit(areaVector(facet)), dark)
  for (const face of drawnFaces(piece)) {
    const normal = unit(face.normal)
    const outline = lifted(stickerOutline(home(face.polygon), normal, cut), normal, LIFT.sticker)
    triangles.add(outline, normal, hueOf(scheme ? colourIn(scheme, face.colour).shade : BLANK))
  }
  return triangles.geometry()
}

const lifted = (polygon: Polygon, normal: Vector, by: number): Vector[] =>
  polygon.map((corner) => add(corner, scale(normal, by)))

/** The frame that lights a piece: its faces a little larger than the stickers. */
export function rimGeometry(piece: Piece, core: Vector, cut: number): BufferGeometry {
  const triangles = new Triangles()
  for (const face of drawnFaces(piece)) {
    const normal = unit(face.normal)
    const polygon = face.polygon.map((corner) => subtract(corner, core))
    const distance = Math.min(cut, innerRadius(polygon, normal) * 0.34) * 0.3
    triangles.add(lifted(inset(polygon, normal, distance), normal, LIFT.rim), normal, [1, 1, 1])
  }
  return triangles.geometry()
}

/** The ring that marks a place: a band around each outer face. */
export function ringGeometry(piece: Piece, core: Vector): BufferGeometry {
  const triangles = new Triangles()
  for (const face of drawnFaces(piece)) {
    const normal = unit(face.normal)
    const polygon = face.polygon.map((corner) => subtract(corner, core))
    const room = innerRadius(polygon, normal)
    const band = (distance: number) =>
      lifted(inset(polygon, normal, Math.min(distance, room * distance * 2)), normal, LIFT.ring)
    const [outer, inner] = [band(0.03), band(0.15)]
    for (const triangle of triangulate(outer, normal, [inner]))
      triangles.add(triangle, normal, [1, 1, 1])
  }
  return triangles.geometry()
}

/** A square for the mark of a face, with texture coordinates from 0 to 1. */
export function markGeometry({ polygon, normal: along }: OuterFace, core: Vector): BufferGeometry {
  const normal = unit(along)
  const [u, v] = acrossPlane(normal)
  const room = roomIn(polygon, normal)
  const half = room.radius * 0.8
  const middle = add(subtract(room.middle, core), scale(normal, LIFT.mark))
  const at = (a: number, b: number) => add(middle, add(scale(u, a * half), scale(v, b * half)))
  const geometry = new BufferGeometry()
  const corners = [at(-1, -1), at(1, -1), at(1, 1), at(-1, -1), at(1, 1), at(-1, 1)]
  const texture = [0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(corners.flat()), 3))
  geometry.setAttribute('uv', new BufferAttribute(new Float32Array(texture), 2))
  return geometry
}

const key = (v: Vector): string => v.map((c) => Math.round(c * 1e4)).join()

/**
 * The facets pulled in, with the gaps along edges and at corners closed. Bodies whose facets do not
 * meet edge to edge (circles) are only pulled in a little.
 */
export function bevelled(facets: readonly Polygon[]): Polygon[] {
  const normals = facets.map((facet) => unit(areaVector(facet)))
  const byEdge = new Map<string, { facet: number; corner: number }>()
  let isClosed = true
  facets.forEach((facet, f) =>
    facet.forEach((corner, i) => {
      const edge = `${key(corner)}|${key(facet[(i + 1) % facet.length])}`
      if (byEdge.has(edge)) isClosed = false
      byEdge.set(edge, { facet: f, corner: i })
    }),
  )
  const twin = (f: number, i: number) => {
    const facet = facets[f]
    return byEdge.get(`${key(facet[(i + 1) % facet.length])}|${key(facet[i])}`)
  }
  isClosed &&= facets.every((facet, f) => facet.every((_, i) => twin(f, i) !== undefined))
  if (!isClosed) return facets.map((facet, f) => lifted(facet, normals[f], -GAP))
  const pulled = facets.map((facet, f) => {
    const distance = Math.min(BEVEL, innerRadius(facet, normals[f]) * 0.25)
    return lifted(inset(facet, normals[f], distance), normals[f], -GAP)
  })
  const made: Polygon[] = [...pulled]
  const corners = new Map<string, Vector[]>()
  facets.forEach((facet, f) =>
    facet.forEach((corner, i) => {
      const at = corners.get(key(corner)) ?? []
      corners.set(key(corner), [...at, pulled[f][i]])
      const other = twin(f, i) as { facet: number; corner: number }
      if (other.facet < f) return
      const next = (i + 1) % facet.length
      const far = pulled[other.facet]
      const band = [
        pulled[f][next],
        pulled[f][i],
        far[(other.corner + 1) % far.length],
        far[other.corner],
      ]
      if (Math.sqrt(dot(areaVector(band), areaVector(band))) > 1e-9) made.push(band)
    }),
  )
  const middle = average(facets.flat())
  for (const points of corners.values()) {
    if (points.length < 3) continue
    const outward = unit(subtract(average(points), middle))
    const [u, v] = acrossPlane(outward)
    const centre = average(points)
    const angle = (p: Vector) =>
      Math.atan2(dot(subtract(p, centre), v), dot(subtract(p, centre), u))
    const cap = [...points].sort((a, b) => angle(a) - angle(b))
    if (Math.sqrt(dot(areaVector(cap), areaVector(cap))) > 1e-9) made.push(cap)
  }
  return made
}
