/**
 * Kinds of pieces: what they are by their place in the mechanism and, where the solid gives pieces of
 * one sort different shapes, by shape too. Two pieces are of one shape if their outer faces are
 * congruent, mirrored or not.
 */
import { areaOf } from '../geometry/polyhedron'
import { cross, dot, length, subtract, unit } from '../geometry/vector'
import type { Vector } from '../rotation'
import type { OuterFace } from './mechanism'

export interface Shaped {
  readonly role: string
  readonly faces: readonly OuterFace[]
}

/** The kind of each piece, in their order. */
export function kindsOf(pieces: readonly Shaped[]): string[] {
  const shapes = pieces.map(({ faces }) => shapeKey(faces))
  const classes = new Map<string, Map<string, number>>()
  pieces.forEach(({ role }, p) => {
    const known = classes.get(role) ?? new Map<string, number>()
    classes.set(role, known.set(shapes[p], known.get(shapes[p]) ?? p))
  })
  return pieces.map(({ role }, p) => {
    const examples = [...(classes.get(role)?.entries() ?? [])]
    if (examples.length === 1) return role
    const counts = examples.map(([, at]) => pieces[at].faces.length)
    const own = pieces[p].faces.length
    if (new Set(counts).size === counts.length)
      return `${role} with ${NUMBERS[own] ?? own} face${own === 1 ? '' : 's'}`
    const named = examples.map(
      ([key, at]) => [key, outlineWord(pieces[at].faces), areaSum(pieces[at].faces)] as const,
    )
    const [, word, area] = named.find(([key]) => key === shapes[p]) as (typeof named)[number]
    const alike = named.filter(([, other]) => other === word).map(([, , size]) => size)
    if (alike.length === 1) return `${role} (${word})`
    const rank = alike.filter((size) => size < area - 1e-6).length
    const equal = alike.filter((size) => Math.abs(size - area) < 1e-6).length
    if (equal > 1) {
      const nth = named.filter(([key, other]) => other === word && key < shapes[p]).length
      return `${role} (${word}, sort ${nth + 1})`
    }
    const sizes = alike.length === 2 ? ['small', 'large'] : alike.map((_, i) => `size ${i + 1}`)
    return `${sizes[rank]} ${role} (${word})`
  })
}

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight']

const areaSum = (faces: readonly OuterFace[]) =>
  faces.reduce((sum, { polygon }) => sum + areaOf(polygon), 0)

const rough = (n: number) => Math.round(n * 1e4)

/** Distances between all corners, with the sizes of the faces: the same for congruent pieces. */
function shapeKey(faces: readonly OuterFace[]): string {
  const corners = faces.flatMap(({ polygon, corners: own }) => own ?? polygon)
  const distances = corners.flatMap((a, i) =>
    corners.slice(i + 1).map((b) => rough(length(subtract(a, b)))),
  )
  const sizes = faces.map(({ polygon }) => rough(areaOf(polygon)))
  const ascending = (list: number[]) => list.sort((a, b) => a - b).join()
  return `${ascending(sizes)};${ascending(distances)}`
}

/** 'trapezium' or 'triangle and square': the outlines that a piece shows. */
function outlineWord(faces: readonly OuterFace[]): string {
  const words = faces.map(({ polygon, corners }) => wordFor(corners ?? polygon))
  return [...new Set(words)].sort().join(' and ')
}

function wordFor(polygon: readonly Vector[]): string {
  if (polygon.length === 3) return 'triangle'
  if (polygon.length === 5) return 'pentagon'
  if (polygon.length === 6) return 'hexagon'
  if (polygon.length !== 4) return `${polygon.length} corners`
  const sides = polygon.map((a, i) => subtract(polygon[(i + 1) % 4], a))
  const parallel = (a: Vector, b: Vector) => length(cross(unit(a), unit(b))) < 1e-6
  const right = Math.abs(dot(unit(sides[0]), unit(sides[1]))) < 1e-6
  const equal = (a: Vector, b: Vector) => Math.abs(length(a) - length(b)) < 1e-6
  const pairs = [parallel(sides[0], sides[2]), parallel(sides[1], sides[3])]
  if (pairs[0] && pairs[1]) {
    if (right) return equal(sides[0], sides[1]) ? 'square' : 'rectangle'
    return equal(sides[0], sides[1]) ? 'rhombus' : 'parallelogram'
  }
  if (pairs[0] || pairs[1]) return 'trapezium'
  const isKite =
    (equal(sides[0], sides[1]) && equal(sides[2], sides[3])) ||
    (equal(sides[1], sides[2]) && equal(sides[3], sides[0]))
  return isKite ? 'kite' : 'four corners'
}
