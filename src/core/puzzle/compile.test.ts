import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { reachOf } from '../analysis/placements'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { areaOf, areaVector, bigCube, clipAll, volumeOf } from '../geometry/polyhedron'
import { dot, length, subtract, unit } from '../geometry/vector'
import { must } from '../result'
import { rotate, type Vector } from '../rotation'
import { anyGlued, anySolid } from '../testing'
import { compile, placed, STRADDLES, type Puzzle } from './compile'
import { readDefinition } from './readDefinition'
import { inSlab } from './mechanism'
import { mechanismOf } from './mechanisms'

const shipped = CATALOG_IDS.map((id) => [id, must(puzzleById(id))] as const)

function expectOutwardOutlines(puzzle: Puzzle): void {
  for (const { faces } of puzzle.pieces)
    for (const { normal, polygon } of faces) {
      expect(dot(unit(areaVector(polygon)), unit(normal))).toBeCloseTo(1, 6)
      const height = dot(normal, polygon[0])
      for (const corner of polygon) expect(dot(normal, corner)).toBeCloseTo(height, 6)
    }
}

function expectSlabsToCarry(puzzle: Puzzle): void {
  puzzle.grips.forEach((grip, g) =>
    puzzle.pieces.forEach(({ cells, core }, p) => {
      if (core !== grip.core) return
      for (let r = 0; r < 24; r++) {
        const inside = cells.filter((cell) => inSlab(grip, placed(puzzle.cores[core], r, cell)))
        const how = inside.length === 0 ? 0 : inside.length === cells.length ? 1 : STRADDLES
        expect(puzzle.carry[g][24 * p + r]).toBe(how)
      }
    }),
  )
}

describe.each(shipped)('%s', (_, puzzle) => {
  it('has outlines that are flat and turned outward', () => expectOutwardOutlines(puzzle))

  it('carries exactly the pieces whose points lie in the slab', () => expectSlabsToCarry(puzzle))

  it('names its pieces apart', () => {
    expect(new Set(puzzle.pieces.map(({ id }) => id)).size).toBe(puzzle.pieces.length)
  })

  it('has no point on a threshold, so that inside is never in doubt', () => {
    const reach = reachOf(puzzle)
    for (const grip of puzzle.grips)
      puzzle.pieces.forEach(({ cells, core }, p) => {
        if (core !== grip.core) return
        for (const cell of cells)
          for (const r of reach[p]) {
            const height = dot(grip.axis, placed(puzzle.cores[core], r, cell))
            for (const cut of [grip.from, grip.to])
              if (cut !== null) expect(Math.abs(height - cut)).toBeGreaterThan(0.15)
          }
      })
  })

  it('turns clockwise as seen from outside: a quarter takes what is on top of an axis to the right', () => {
    for (const { grip, amount, rotation } of puzzle.turns) {
      const { axis, unitDegrees } = puzzle.grips[grip]
      expect(rotate(rotation, axis)).toEqual(axis)
      const [n] = [unit(axis)]
      const seed: Vector = Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]
      const across = subtract(seed, [n[0] * dot(seed, n), n[1] * dot(seed, n), n[2] * dot(seed, n)])
      const moved = rotate(rotation, across)
      const degrees = (-amount * unitDegrees * Math.PI) / 180
      const { cos, sin } = { cos: Math.cos(degrees), sin: Math.sin(degrees) }
      const c: Vector = [
        n[1] * across[2] - n[2] * across[1],
        n[2] * across[0] - n[0] * across[2],
        n[0] * across[1] - n[1] * across[0],
      ]
      const expected = across.map((x, i) => x * cos + c[i] * sin) as unknown as Vector
      expect(length(subtract(moved, expected))).toBeLessThan(1e-9)
    }
  })

  it('shows all of its surface: outer faces add up to the surface of the solid', () => {
    const faces = puzzle.pieces.flatMap((piece) => piece.faces)
    const area = faces.reduce((sum, { polygon }) => sum + areaOf(polygon), 0)
    const { solid } = puzzle.definition
    const shape = solid?.halfSpaces ?? mechanismOf(puzzle.definition).shape
    if (!shape) return
    const whole = clipAll(bigCube(100), shape)
    const expected = whole.reduce((sum, { polygon }) => sum + areaOf(polygon), 0)
    expect(area).toBeCloseTo(expected, 6)
  })
})

describe('solids', () => {
  it('are cut without loss: the volumes of the pieces add up to that of the solid', () => {
    fc.assert(
      fc.property(anySolid, (definition) => {
        const read = readDefinition(definition)
        if (!read.ok) return
        const { solid } = read.value
        if (!solid) throw new Error('the solid was lost')
        const whole = volumeOf(clipAll(bigCube(100), solid.halfSpaces))
        const sum = mechanismOf(read.value)
          .parts.map(({ region }) =>
            volumeOf(clipAll(bigCube(100), [...solid.halfSpaces, ...region])),
          )
          .reduce((a, b) => a + b)
        expect(sum).toBeCloseTo(whole, 6)
        expectOutwardOutlines(compile(read.value))
      }),
      { numRuns: 60 },
    )
  })

  it.each(shipped.filter(([, { definition }]) => definition.solid))(
    'lose nothing in %s',
    (_, { definition }) => {
      const halves = definition.solid?.halfSpaces ?? []
      const whole = volumeOf(clipAll(bigCube(100), halves))
      const sum = mechanismOf(definition)
        .parts.map(({ region }) => volumeOf(clipAll(bigCube(100), [...region, ...halves])))
        .reduce((a, b) => a + b)
      expect(sum).toBeCloseTo(whole, 8)
    },
  )

  it('keep the size of a box that is given as half-spaces', () => {
    const cube = bigCube(1.5).map(({ normal }) => ({ normal, at: 1.5, colour: 'red' }))
    expect(volumeOf(clipAll(bigCube(9), cube))).toBeCloseTo(27, 9)
    expect(clipAll(bigCube(9), [...cube, { normal: [1, 0, 0], at: -2 }])).toEqual([])
  })
})

describe('gluing', () => {
  it('joins cells for good: what is glued turns together or not at all', () => {
    fc.assert(
      fc.property(anyGlued, (puzzle) => {
        expectSlabsToCarry(puzzle)
        const cells = puzzle.pieces.flatMap((piece) => piece.cells.map(String))
        expect(new Set(cells).size).toBe(cells.length)
      }),
      { numRuns: 12 },
    )
  })
})

describe('what solvers notice', () => {
  const count = (id: string) => {
    const found: Record<string, number> = {}
    for (const { kind } of must(puzzleById(id)).pieces) found[kind] = (found[kind] ?? 0) + 1
    return found
  }

  it('is derived from the shapes', () => {
    expect(count('prism-6')).toEqual({
      'corner with one face': 2,
      'corner with three faces': 6,
      'edge (trapezium)': 6,
      'edge (rectangle)': 6,
      centre: 6,
    })
    expect(count('tilt-3')['edge with one face']).toBe(6)
    expect(count('tilt-3')['edge with two faces']).toBe(6)
    expect(count('bipyramid-6')['corner with six faces']).toBe(2)
    expect(count('tetra-3')).toEqual({ tip: 4, 'axial centre': 4, edge: 6 })
    expect(count('circle-3')).toEqual({
      'outer corner': 8,
      'corner bit': 24,
      'outer edge': 12,
      'edge bit': 24,
      centre: 6,
    })
  })

  it('writes the layers of conjoined cubes as agreed', () => {
    const names = must(puzzleById('twin-3')).grips.map(({ name }) => name)
    for (const name of ['R', '2R', 'U', '2U', 'L', '2L', 'D', '2D']) expect(names).toContain(name)
    expect(names.some((name) => /[FBMESxyz]/.test(name))).toBe(false)
  })

  it('keeps whole-puzzle turns to those that the mechanism does not notice', () => {
    const wholes = (id: string) =>
      must(puzzleById(id))
        .turns.filter(({ whole }) => whole)
        .map(({ name }) => name)
    expect(wholes('circle-3')).toEqual(['y2'])
    expect(wholes('shift-3x3x5')).toEqual(['x2', 'y', 'y2', "y'", 'z2'])
    expect(wholes('tetra-3')).toEqual(['x', "x'", 'y', "y'", 'z', "z'"])
  })
})
