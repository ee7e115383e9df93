import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { average } from '../geometry/vector'
import { compile, placed, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { posed, poseOf } from '../puzzle/view'
import { must } from '../result'
import type { Rotation, Vector } from '../rotation'
import { anyGlued, anySolid, box } from '../testing'
import { baseKind } from '../phrases'
import { placeNamesOf } from './placeNames'

const OPPOSED = [
  ['top', 'bottom', 1],
  ['upper', 'lower', 1],
  ['right', 'left', 0],
  ['front', 'back', 2],
] as const

/** Where a home is in the picture, as the puzzle is held. */
function at(puzzle: Puzzle, frame: Rotation, home: number): Vector {
  const { cells, core } = puzzle.pieces[home]
  const point = average(cells.map((cell) => placed(puzzle.cores[core], frame, cell)))
  return posed(poseOf(puzzle.definition), point)
}

/** No two places are called the same, and of two that differ in one word each lies to its side. */
function expectTrue(puzzle: Puzzle, frame: Rotation): number {
  const { names, points, usesClock } = placeNamesOf(puzzle, frame)
  expect(new Set(names).size).toBe(puzzle.pieces.length)
  // Where one points says as much, once it is known what is there.
  const pointed = points.map((point, home) => `${baseKind(puzzle.pieces[home].kind)} ${point}`)
  expect(new Set(pointed).size).toBe(puzzle.pieces.length)
  points.forEach((point, home) => {
    if (point === 'in the middle') return
    for (const word of point.split(/[ ,]+/)) expect(names[home]).toContain(word)
  })
  expect(usesClock).toBe(
    names.some((name) => name.includes("o'clock") || name.includes('half past')),
  )
  let compared = 0
  names.forEach((name, home) => {
    expect(name).toMatch(/^the [a-z0-9',]+( [a-z0-9',]+)+$/)
    for (const [high, low, axis] of OPPOSED) {
      const word = new RegExp(`\\b${high}\\b`)
      const other = names.indexOf(name.replace(word, low))
      if (other < 0 || other === home) continue
      compared++
      const difference = at(puzzle, frame, home)[axis] - at(puzzle, frame, other)[axis]
      expect(difference, `${name} and ${names[other]}`).toBeGreaterThan(1e-6)
    }
    const hour = /(?:at (\d+) o'clock|at half past (\d+))$/.exec(name)
    if (!hour) return
    const [x, , z] = at(puzzle, frame, home)
    const clock = Number(hour[1] ?? hour[2]) + (hour[2] ? 0.5 : 0)
    // Seen from above, 12 at the back and 3 on the right.
    const angle = (clock * Math.PI) / 6
    const distance = Math.hypot(x, z)
    expect((x * Math.sin(angle) - z * Math.cos(angle)) / distance, name).toBeGreaterThan(0.96)
  })
  return compared
}

describe('the names of places', () => {
  it.each(CATALOG_IDS)(
    'are those of one place each and lie to their sides, in every hold: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      let compared = 0
      for (const frame of puzzle.holds) compared += expectTrue(puzzle, frame)
      expect(compared).toBeGreaterThan(4)
    },
  )

  it('say nothing by a letter code', () => {
    for (const id of CATALOG_IDS) {
      const puzzle = must(puzzleById(id))
      for (const name of placeNamesOf(puzzle, 0).names) expect(name).not.toMatch(/[A-Z]|\d\.|\+/)
    }
  })

  it('tell places apart on any box, glued or not', () => {
    const size = fc.integer({ min: 2, max: 6 })
    fc.assert(
      fc.property(size, size, size, (a, b, c) => {
        const puzzle = box(a, b, c)
        for (const frame of puzzle.holds.slice(0, 4)) expectTrue(puzzle, frame)
      }),
      { numRuns: 12 },
    )
    fc.assert(
      fc.property(anyGlued, (puzzle) => {
        const { names } = placeNamesOf(puzzle, 0)
        expect(new Set(names).size).toBe(names.length)
      }),
      { numRuns: 25 },
    )
  })

  it('tell places apart on any solid, however it is turned in the picture', () => {
    const view = fc.constantFrom(
      undefined,
      { up: [1, 1, 1], front: [1, 1, -2] },
      { up: [0, 1, 0], front: [-1, 0, 1] },
      { up: [1, 1, 0], front: [0, 0, 1] },
    )
    let made = 0
    fc.assert(
      fc.property(anySolid, view, (solid, held) => {
        const read = readDefinition(held ? { ...solid, view: held } : solid)
        fc.pre(read.ok)
        if (!read.ok) return
        made++
        const puzzle = compile(read.value)
        for (const frame of puzzle.holds.slice(0, 3)) {
          const { names } = placeNamesOf(puzzle, frame)
          expect(new Set(names).size).toBe(names.length)
        }
      }),
      { numRuns: 8 },
    )
    expect(made).toBeGreaterThan(0)
  })
})
