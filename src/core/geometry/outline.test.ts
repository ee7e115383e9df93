import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { must } from '../result'
import { cutWidth } from '../puzzle/cutWidth'
import { drawnFaces } from '../puzzle/drawnFaces'
import type { Vector } from '../rotation'
import { innerRadius, inset, roomIn, rounded, stickerOutline } from './outline'
import { areaOf, areaVector } from './polyhedron'
import { dot, length, subtract, unit } from './vector'

const UP: Vector = [0, 0, 1]

/** Corners of a regular polygon of radius 1, anticlockwise. */
const regular = (n: number): Vector[] =>
  Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * i) / n
    return [Math.cos(angle), Math.sin(angle), 0]
  })

describe('an outline', () => {
  it('has room for the circle that touches the sides of a regular one', () => {
    for (let n = 3; n <= 9; n++)
      expect(innerRadius(regular(n), UP)).toBeCloseTo(Math.cos(Math.PI / n), 9)
  })

  it('is pulled in by the same distance on every side', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 9 }),
        fc.double({ min: 0.01, max: 0.3, noNaN: true }),
        (n, distance) => {
          const inner = inset(regular(n), UP, distance)
          expect(inner).toHaveLength(n)
          expect(innerRadius(inner, UP)).toBeCloseTo(innerRadius(regular(n), UP) - distance, 6)
        },
      ),
    )
  })

  it('loses a little at its corners when they are rounded, and nothing else', () => {
    for (let n = 3; n <= 8; n++) {
      const curved = rounded(regular(n), 0.1)
      expect(areaOf(curved)).toBeLessThan(areaOf(regular(n)))
      expect(areaOf(curved)).toBeGreaterThan(0.97 * areaOf(regular(n)) - 0.05)
      expect(dot(areaVector(curved), UP)).toBeGreaterThan(0)
    }
  })
})

describe('stickers', () => {
  it.each(CATALOG_IDS)('of %s lie flat on their faces, inside them, and face outward', (id) => {
    const puzzle = must(puzzleById(id))
    const cut = cutWidth(puzzle)
    for (const { faces } of puzzle.pieces)
      for (const { polygon, normal } of faces) {
        const outline = stickerOutline(polygon, normal, cut)
        const along = unit(normal)
        const height = dot(along, polygon[0])
        for (const corner of outline) expect(dot(along, corner)).toBeCloseTo(height, 6)
        expect(dot(areaVector(outline), along)).toBeGreaterThan(0)
        expect(areaOf(outline)).toBeLessThan(areaOf(polygon))
        expect(areaOf(outline)).toBeGreaterThan(0.25 * areaOf(polygon))
        const most = Math.max(...polygon.map((corner) => length(subtract(corner, polygon[0]))))
        for (const corner of outline)
          expect(length(subtract(corner, polygon[0]))).toBeLessThanOrEqual(most + 1e-9)
      }
  })
})

describe('cuts', () => {
  it.each(CATALOG_IDS)('of %s are equally wide, and wide enough to be seen', (id) => {
    const puzzle = must(puzzleById(id))
    const cut = cutWidth(puzzle)
    expect(cut).toBeGreaterThanOrEqual(0.045)
    for (const piece of puzzle.pieces)
      for (const { polygon, normal } of drawnFaces(piece)) {
        const { middle, radius } = roomIn(polygon, normal)
        expect(radius).toBeGreaterThan(0)
        // No point of the outline is nearer to the middle of the room than that.
        for (const corner of polygon)
          expect(length(subtract(corner, middle))).toBeGreaterThanOrEqual(radius - 1e-9)
        const narrowed = radius * 0.34
        const inner = inset(polygon, normal, Math.min(cut, narrowed))
        const gap = Math.min(
          ...inner.map((corner) =>
            Math.min(
              ...polygon.map((a, i) => fromEdge(corner, a, polygon[(i + 1) % polygon.length])),
            ),
          ),
        )
        // At a sharp point an outline is pulled in by less.
        expect(gap).toBeLessThanOrEqual(Math.min(cut, narrowed) + 1e-6)
        expect(gap).toBeGreaterThan(0.4 * Math.min(cut, narrowed))
      }
  })
})

/** How far a point is from an edge. */
function fromEdge(p: Vector, a: Vector, b: Vector): number {
  const [along, to] = [subtract(b, a), subtract(p, a)]
  const t = Math.max(0, Math.min(1, dot(to, along) / dot(along, along)))
  return length(subtract(to, along.map((c) => c * t) as unknown as Vector))
}
