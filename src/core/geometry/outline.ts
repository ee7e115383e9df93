/** Outlines as they are drawn: pulled in from the edge, corners rounded. */
import type { Vector } from '../rotation'
import { add, average, cross, dot, length, scale, subtract, unit } from './vector'

/** A circle inside an outline: for its sticker's width and the place of its mark. */
export interface Room {
  readonly middle: Vector
  readonly radius: number
}

/** Points tried along each of two directions, where an outline bends inward. */
const TRIES = 24

/**
 * About the largest circle that fits inside an outline. Where the outline is convex it is taken about the
 * middle of its corners; else (beside an arc) the best of many points is.
 */
export function roomIn(polygon: readonly Vector[], normal: Vector): Room {
  const up = unit(normal)
  const corners = polygon.map((a, i) => {
    const along = subtract(polygon[(i + 1) % polygon.length], a)
    return { a, along, inward: unit(cross(up, along)) }
  })
  const isConvex = corners.every(({ along }, i) => {
    const next = corners[(i + 1) % corners.length].along
    return dot(cross(along, next), up) >= -1e-9
  })
  const centre = average(polygon)
  if (isConvex)
    return {
      middle: centre,
      radius: Math.min(...corners.map(({ a, inward }) => dot(subtract(centre, a), inward))),
    }
  const u = unit(corners[0].along)
  const v = cross(up, u)
  const across = (direction: Vector) => polygon.map((p) => dot(subtract(p, centre), direction))
  const [us, vs] = [across(u), across(v)]
  const [left, right] = [Math.min(...us), Math.max(...us)]
  const [low, high] = [Math.min(...vs), Math.max(...vs)]
  let best: Room = { middle: centre, radius: 0 }
  for (let i = 1; i < TRIES; i++)
    for (let j = 1; j < TRIES; j++) {
      const x = left + ((right - left) * i) / TRIES
      const y = low + ((high - low) * j) / TRIES
      const radius = distanceInside(us, vs, x, y, best.radius)
      if (radius > best.radius)
        best = { middle: add(centre, add(scale(u, x), scale(v, y))), radius }
    }
  return best
}

/** Of a point from an outline, in a plane; 0 outside, and no better than `least` is not worked out. */
function distanceInside(
  us: readonly number[],
  vs: readonly number[],
  x: number,
  y: number,
  least: number,
): number {
  let isInside = false
  let nearest = Infinity
  for (let i = 0, j = us.length - 1; i < us.length; j = i++) {
    const [ax, ay, bx, by] = [us[j], vs[j], us[i], vs[i]]
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) isInside = !isInside
    const [dx, dy] = [bx - ax, by - ay]
    const share = ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)
    const t = Math.max(0, Math.min(1, share))
    nearest = Math.min(nearest, Math.hypot(x - ax - t * dx, y - ay - t * dy))
    if (nearest <= least) return 0
  }
  return isInside ? nearest : 0
}

/** The radius of what fits inside an outline. */
export const innerRadius = (polygon: readonly Vector[], normal: Vector): number =>
  roomIn(polygon, normal).radius

/**
 * The outline with every edge moved inward by `distance`. Corners that are nearly straight (points of
 * an arc) move along with their edges; sharp ones no farther than three times the distance.
 */
export function inset(polygon: readonly Vector[], normal: Vector, distance: number): Vector[] {
  const up = unit(normal)
  const count = polygon.length
  const inward = polygon.map((a, i) => unit(cross(up, subtract(polygon[(i + 1) % count], a))))
  return polygon.map((corner, i) => {
    const [before, after] = [inward[(i + count - 1) % count], inward[i]]
    const along = add(before, after)
    // The corner moves by d with d . before = d . after = distance.
    const reach = 2 / Math.max(dot(along, along), 0.45)
    return add(corner, scale(along, distance * reach))
  })
}

/** Corners replaced by short curves that begin `radius` away from them, a few points each. */
export function rounded(polygon: readonly Vector[], radius: number, points = 3): Vector[] {
  const count = polygon.length
  return polygon.flatMap((corner, i) => {
    const before = subtract(polygon[(i + count - 1) % count], corner)
    const after = subtract(polygon[(i + 1) % count], corner)
    const [toBefore, toAfter] = [unit(before), unit(after)]
    // Straight on, as inside an arc: nothing to round.
    if (dot(toBefore, toAfter) < -0.95) return [corner]
    const back = Math.min(radius, length(before) / 2.2)
    const on = Math.min(radius, length(after) / 2.2)
    const start = add(corner, scale(toBefore, back))
    const end = add(corner, scale(toAfter, on))
    return Array.from({ length: points + 1 }, (_, k) => {
      const t = k / points
      const [a, b] = [(1 - t) * (1 - t), t * t]
      return add(add(scale(start, a), scale(corner, 1 - a - b)), scale(end, b))
    })
  })
}

/** Widest and narrowest distance of a sticker from the edge of its face, in cells. */
const WIDEST_CUT = 0.1
const NARROWEST_CUT = 0.045
const STICKER_RADIUS = 0.1

/**
 * How far stickers stay from the edges of their faces, on a puzzle whose faces have so much room at least: the
 * same everywhere, so that all its cuts are equally wide.
 */
export const cutFor = (leastRoom: number): number =>
  Math.max(NARROWEST_CUT, Math.min(WIDEST_CUT, leastRoom * 0.28))

/** The coloured part of an outer face; only where that would leave too little of it the cut is narrower. */
export function stickerOutline(polygon: readonly Vector[], normal: Vector, cut: number): Vector[] {
  const room = innerRadius(polygon, normal)
  const distance = Math.min(cut, room * 0.34)
  return rounded(inset(polygon, normal, distance), Math.min(STICKER_RADIUS, room * 0.3))
}
