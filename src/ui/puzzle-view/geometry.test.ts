import { cutWidth } from '@/core/puzzle/cutWidth'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '@/core/catalog'
import { areaOf, areaVector, volumeOf } from '@/core/geometry/polyhedron'
import { dot, length, unit } from '@/core/geometry/vector'
import { drawnFaces } from '@/core/puzzle/drawnFaces'
import { must } from '@/core/result'
import type { Vector } from '@/core/rotation'
import { gluedCube } from '@/core/testing'
import {
  bevelled,
  markGeometry,
  pieceGeometry,
  rimGeometry,
  ringGeometry,
  triangulate,
} from './geometry'

const corners = (geometry: ReturnType<typeof pieceGeometry>, name: string): Vector[] => {
  const { array } = geometry.getAttribute(name)
  return Array.from({ length: array.length / 3 }, (_, i) => [
    array[3 * i],
    array[3 * i + 1],
    array[3 * i + 2],
  ])
}

const solid = (facets: readonly (readonly Vector[])[]) =>
  facets.map((polygon) => ({ polygon, normal: areaVector(polygon) }))

describe('triangles', () => {
  it('cover an outline, also one that is not convex, and leave holes open', () => {
    const hook: Vector[] = [
      [0, 0, 0],
      [3, 0, 0],
      [3, 1, 0],
      [1, 1, 0],
      [1, 3, 0],
      [0, 3, 0],
    ]
    const area = (triangles: Vector[][]) => triangles.reduce((sum, each) => sum + areaOf(each), 0)
    expect(area(triangulate(hook, [0, 0, 1]))).toBeCloseTo(5, 9)
    const square = (half: number): Vector[] => [
      [-half, -half, 0],
      [half, -half, 0],
      [half, half, 0],
      [-half, half, 0],
    ]
    expect(area(triangulate(square(2), [0, 0, 1], [square(1)]))).toBeCloseTo(12, 9)
  })
})

describe.each([...CATALOG_IDS, 'glued'])('the pieces of %s', (id) => {
  const puzzle = id === 'glued' ? gluedCube : must(puzzleById(id))

  it('have closed bodies, a little smaller than their place', () => {
    for (const { body } of puzzle.pieces) {
      const cut = bevelled(body)
      const before = volumeOf(solid(body))
      const after = volumeOf(solid(cut))
      expect(after).toBeLessThanOrEqual(before + 1e-9)
      expect(after).toBeGreaterThan(0.5 * before)
    }
  })

  it('have normals of length one, and triangles that turn as their normals say', () => {
    for (const piece of puzzle.pieces.slice(0, 12)) {
      const geometry = pieceGeometry(
        piece,
        puzzle.cores[piece.core],
        cutWidth(puzzle),
        puzzle.definition.colours,
      )
      const [positions, normals] = [corners(geometry, 'position'), corners(geometry, 'normal')]
      expect(positions.length % 3).toBe(0)
      const hues = corners(geometry, 'color')
      expect(hues).toHaveLength(positions.length)
      for (const normal of normals) expect(length(normal)).toBeCloseTo(1, 5)
      for (let at = 0; at < positions.length; at += 3) {
        const around = areaVector(positions.slice(at, at + 3))
        // Cut edges and corners may be a little warped; what is coloured is flat.
        const isBody = new Set(hues.slice(at, at + 3).map(String)).has(String(hues[0]))
        if (length(around) > 1e-5)
          expect(dot(unit(around), normals[at])).toBeGreaterThan(isBody ? 0.8 : 0.999)
      }
    }
  })

  it('carry rims, rings and marks above every face that is drawn', () => {
    for (const piece of puzzle.pieces) {
      const core = puzzle.cores[piece.core]
      const faces = drawnFaces(piece)
      for (const geometry of [
        rimGeometry(piece, core, cutWidth(puzzle)),
        ringGeometry(piece, core),
      ]) {
        const normals = new Set(
          corners(geometry, 'normal').map((normal) => normal.map((c) => c.toFixed(3)).join()),
        )
        const wanted = new Set(
          faces.map(({ normal }) =>
            unit(normal)
              .map((c) => Math.fround(c).toFixed(3))
              .join(),
          ),
        )
        expect(normals.size).toBe(wanted.size)
      }
      for (const face of faces) {
        const heights = corners(markGeometry(face, core), 'position').map((corner) =>
          dot(unit(face.normal), corner),
        )
        const plane = dot(unit(face.normal), face.polygon[0]) - dot(unit(face.normal), core)
        for (const height of heights) expect(height).toBeCloseTo(plane + 0.014, 5)
      }
    }
  })
})
