import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { IN, placed } from '../puzzle/compile'
import { posed, poseOf } from '../puzzle/view'
import { must } from '../result'
import type { Vector } from '../rotation'
import { average } from '../geometry/vector'
import { layersOf } from './layers'
import { layerWords, legendOf, turnWords } from './turnWords'

/** Which way a point on the near part of a layer goes, in the picture. */
const TOWARD: Readonly<Record<string, { near: Vector; goes: Vector }>> = {
  'away from you': { near: [0, 1, 0], goes: [0, 0, -1] },
  'towards you': { near: [0, 1, 0], goes: [0, 0, 1] },
  'to the left': { near: [0, 0, 1], goes: [-1, 0, 0] },
  'to the right': { near: [0, 0, 1], goes: [1, 0, 0] },
}

const along = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

describe('a turn in plain words', () => {
  it.each(CATALOG_IDS)('goes the way that is said, seen in the picture: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const pose = poseOf(puzzle.definition)
    let told = 0
    for (const turn of puzzle.turns) {
      const { way, seen } = turnWords(puzzle, turn)
      if (way === 'half round') expect(puzzle.grips[turn.grip].unitDegrees * turn.amount).toBe(180)
      const expected = TOWARD[way]
      if (!expected || turn.whole) continue
      const moved = puzzle.pieces.flatMap((_, p) =>
        puzzle.carry[turn.grip][24 * p] === IN ? [p] : [],
      )
      const where = (p: number, r: number) =>
        posed(
          pose,
          average(
            puzzle.pieces[p].cells.map((cell) =>
              placed(puzzle.cores[puzzle.pieces[p].core], r, cell),
            ),
          ),
        )
      // Over the whole layer: what is near goes that way, what is far the other.
      const sum = moved.reduce((all, p) => {
        const [from, to] = [where(p, 0), where(p, turn.rotation)]
        const go: Vector = [to[0] - from[0], to[1] - from[1], to[2] - from[2]]
        return all + along(from, expected.near) * along(go, expected.goes)
      }, 0)
      // A layer that is one piece on the axis shows no way.
      if (Math.abs(sum) < 1e-9) continue
      told++
      expect(sum, `${turn.name}: ${way}, ${seen}`).toBeGreaterThan(0.1)
    }
    if (id !== 'prism-6') expect(told).toBeGreaterThan(1)
  })

  it.each(CATALOG_IDS)(
    'no two layers have one name, and outermost ones are told by a side: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      // Two grips with one name take the same pieces of the finished puzzle.
      const byName = new Map<string, string>()
      puzzle.grips.forEach((_, grip) => {
        const taken = puzzle.pieces.map((__, p) => puzzle.carry[grip][24 * p]).join('')
        const name = layerWords(puzzle, grip)
        expect(byName.get(name) ?? taken, name).toBe(taken)
        byName.set(name, taken)
      })

      for (const grip of layersOf(puzzle))
        expect(layerWords(puzzle, grip)).toMatch(/^the [a-z ]*(layer|cap|tip)/)
    },
  )

  it('has a legend of each letter once', () => {
    const puzzle = must(puzzleById('cube-3'))
    expect(legendOf(puzzle, ["R'", 'D', 'R', "D'"])).toEqual([
      'R: the right layer, clockwise as seen from the right.',
      'D: the bottom layer, clockwise as seen from below.',
    ])
    expect(legendOf(puzzle, ['M', 'x'])).toEqual([
      'M: the middle layer between left and right, clockwise as seen from the left.',
      'x: the whole puzzle, clockwise as seen from the right.',
    ])
    const tower = must(puzzleById('box-3x3x5'))
    expect(legendOf(tower, ['R2', '2U'])).toEqual([
      'R2: the right layer, half round.',
      '2U: the second layer from the top, clockwise as seen from above.',
    ])
  })
})
