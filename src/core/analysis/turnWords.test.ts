import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { IN, placed } from '../puzzle/compile'
import { posed, poseOf } from '../puzzle/view'
import { must } from '../result'
import { rotate, type Vector } from '../rotation'
import { average } from '../geometry/vector'
import { layersOf } from './layers'
import { layerWords, legendOf, turnWords, wholeWords } from './turnWords'

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

  it('takes the whole puzzle the way that is said, seen in the picture', () => {
    const [top, front]: Vector[] = [
      [0, 1, 0],
      [0, 0, 1],
    ]
    /** What is where, and where it goes: the front when it is spun or rolled, the top when it is tipped. */
    const goes: Readonly<Record<string, { from: Vector; to: Vector }>> = {
      'spin it to the left': { from: front, to: [-1, 0, 0] },
      'spin it to the right': { from: front, to: [1, 0, 0] },
      'roll it away from you': { from: front, to: [0, 1, 0] },
      'roll it towards you': { from: front, to: [0, -1, 0] },
      'tip it to the right': { from: top, to: [1, 0, 0] },
      'tip it to the left': { from: top, to: [-1, 0, 0] },
    }
    const HALF: Readonly<Record<string, Vector>> = {
      spin: top,
      roll: [1, 0, 0],
      tip: front,
    }
    const told = new Set<string>()
    for (const puzzle of CATALOG_IDS.map((id) => must(puzzleById(id)))) {
      const pose = poseOf(puzzle.definition)
      // The rows of a pose are where the directions of the picture lie in the puzzle.
      const inPuzzle = (v: Vector): Vector =>
        [0, 1, 2].map((i) => pose[0][i] * v[0] + pose[1][i] * v[1] + pose[2][i] * v[2]) as never
      const moved = (turn: (typeof puzzle.turns)[number], v: Vector) =>
        posed(pose, rotate(turn.rotation, inPuzzle(v)))
      for (const turn of puzzle.turns.filter(({ whole }) => whole)) {
        const said = wholeWords(puzzle, turn)
        if (said === undefined) continue
        told.add(said)
        const degrees = puzzle.grips[turn.grip].unitDegrees * turn.amount
        if (said.endsWith('half round')) {
          expect(degrees).toBe(180)
          const axis = HALF[said.split(' ')[0]]
          expect(along(moved(turn, axis), axis), said).toBeCloseTo(1)
          continue
        }
        const [, part] = / a (quarter|third) /.exec(said) ?? []
        expect(Math.min(degrees, 360 - degrees), said).toBe(part === 'third' ? 120 : 90)
        const { from, to } = goes[said.replace(/ a (quarter|third)/, '')]
        expect(along(moved(turn, from), to), said).toBeGreaterThan(0.8)
      }
    }
    expect(told.size).toBeGreaterThanOrEqual(11)
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
