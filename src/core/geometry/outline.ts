/** Outlines as they are drawn: pulled in from the edge, corners rounded. */
import type { Vector } from '../rotation'
import { add, average, cross, dot, length, scale, subtract, unit } from './vector'

/** How far the middle of an outline is from its nearest edge: the radius of what fits inside. */
export function innerRadius(polygon: readonly Vector[], normal: Vector): number {
  const middle = average(polygon)
  return Math.min(
    ...polygon.map((a, i) => {
      const b = polygon[(i + 1) % polygon.length]
      const inward = unit(cross(unit(normal), subtract(b, a)))
      return Math.abs(dot(subtract(middle, a), inward))
    }),
  )
}

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

const STICKER_INSET = 0.1
const STICKER_RADIUS = 0.1

/** The coloured part of an outer face; thin faces keep more of their width. */
export function stickerOutline(polygon: readonly Vector[], normal: Vector): Vector[] {
  const room = innerRadius(polygon, normal)
  const distance = Math.min(STICKER_INSET, room * 0.28)
  return rounded(inset(polygon, normal, distance), Math.min(STICKER_RADIUS, room * 0.3))
}
