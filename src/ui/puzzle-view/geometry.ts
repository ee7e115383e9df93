/** The solids that pieces are drawn with; few triangles, shared by all pieces. */
import { BufferAttribute, BufferGeometry, Shape, ShapeGeometry } from 'three'

/** A unit cell with its edges and corners cut off by `bevel`. */
export function bevelledCell(size: number, bevel: number): BufferGeometry {
  const h = size / 2
  const i = h - bevel
  const triangles: number[] = []
  const push = (...points: number[][]) => {
    // A fan, turned outward if need be.
    const [a, b, c] = points
    const n = cross(minus(b, a), minus(c, a))
    const ordered = dot(n, a) < 0 ? [...points].reverse() : points
    for (let k = 1; k + 1 < ordered.length; k++)
      triangles.push(...ordered[0], ...ordered[k], ...ordered[k + 1])
  }
  const signs = [-1, 1]
  for (let axis = 0; axis < 3; axis++) {
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3]
    const at = (a: number, b: number, c: number) => {
      const point = [0, 0, 0]
      point[axis] = a
      point[u] = b
      point[v] = c
      return point
    }
    for (const s of signs)
      push(at(s * h, -i, -i), at(s * h, i, -i), at(s * h, i, i), at(s * h, -i, i))
    for (const s of signs)
      for (const t of signs)
        push(at(-i, s * h, t * i), at(i, s * h, t * i), at(i, s * i, t * h), at(-i, s * i, t * h))
  }
  for (const x of signs)
    for (const y of signs)
      for (const z of signs)
        push([x * h, y * i, z * i], [x * i, y * h, z * i], [x * i, y * i, z * h])
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(triangles), 3))
  geometry.computeVertexNormals()
  return geometry
}

/** A square with rounded corners around the origin, texture coordinates from 0 to 1. */
export function roundedSquare(half: number, radius: number, hole?: number): ShapeGeometry {
  const shape = outline(half, radius)
  if (hole !== undefined) shape.holes.push(outline(hole, radius * 0.7))
  const geometry = new ShapeGeometry(shape, 3)
  const position = geometry.getAttribute('position')
  const uv = geometry.getAttribute('uv') as BufferAttribute
  for (let k = 0; k < position.count; k++)
    uv.setXY(k, (position.getX(k) / half + 1) / 2, (position.getY(k) / half + 1) / 2)
  return geometry
}

function outline(h: number, r: number): Shape {
  const shape = new Shape()
  shape.moveTo(-h + r, -h)
  shape.lineTo(h - r, -h)
  shape.quadraticCurveTo(h, -h, h, -h + r)
  shape.lineTo(h, h - r)
  shape.quadraticCurveTo(h, h, h - r, h)
  shape.lineTo(-h + r, h)
  shape.quadraticCurveTo(-h, h, -h, h - r)
  shape.lineTo(-h, -h + r)
  shape.quadraticCurveTo(-h, -h, -h + r, -h)
  return shape
}

const minus = (a: number[], b: number[]) => a.map((c, k) => c - b[k])
const dot = (a: number[], b: number[]) => a.reduce((sum, c, k) => sum + c * b[k], 0)
const cross = (a: number[], b: number[]) => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
