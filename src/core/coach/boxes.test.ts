import { describe, expect, it } from 'vitest'
import { slabsOf } from '../analysis/layers'
import type { Puzzle } from '../puzzle/compile'
import { directionOfLetter, directionOfName } from '../puzzle/directions'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { stagesOf, type School } from '../schools/school'
import { box, capped, drawn } from '../testing'
import { isSolved } from '../state'
import { follow, openBench } from './bench'
import { frameMeeting } from './goal'
import { plan } from './plan'
import type { Route } from './route'
import { selected } from './selections'
import { owedAt, trailOf } from './standing'
import { faultsOf } from './truth.testing'
import { statesAfterStages } from './verify'

const written = (puzzle: Puzzle) => schoolsOf(puzzle).map(({ id }) => id)

/** The school of a box that was written for boxes; of several the first, or the one that is asked for. */
function schoolOf(puzzle: Puzzle, ids = ['box-swaps', 'nested-boxes', 'shape-first']) {
  const school = schoolsOf(puzzle).find(({ id }) => ids.includes(id))
  if (!school) throw new Error('no school of boxes')
  return school
}

const routesOf = (puzzle: Puzzle, count: number) =>
  Array.from({ length: count }, (_, seed) => {
    const from = drawn(puzzle, seed + 1)
    return { from, route: must(plan(puzzle, schoolOf(puzzle), from)) }
  })

/** Ends above, in front and on the right; with a belt and without. */
const BOXES: readonly [number, number, number][] = [
  [3, 2, 3],
  [3, 4, 3],
  [3, 5, 3],
  [3, 3, 5],
  [6, 3, 3],
  [3, 7, 3],
]

/** Led home stage by stage, every sentence true, every layer under the one name that it has. */
function expectGood(puzzle: Puzzle, school: School, route: Route): void {
  const { states, tape } = trailOf(puzzle, route)
  expect(isSolved(puzzle, states[tape.length])).toBe(true)
  expect(statesAfterStages(puzzle, school, route).filter(({ met }) => !met)).toEqual([])
  expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
  const named = new Set(slabsOf(puzzle))
  const strange = tape.filter(({ name }) => {
    const turn = puzzle.turnByName.get(name)
    return turn && !turn.whole && !named.has(turn.grip)
  })
  expect(strange.map(({ name }) => name)).toEqual([])
}

describe('schools of boxes', () => {
  it('are offered to boxes with ends of three by three, and to nothing else', () => {
    expect(written(box(3, 2, 3))).toContain('box-swaps')
    for (const size of BOXES.slice(1)) expect(written(box(...size))).toContain('nested-boxes')
    const others: typeof BOXES = [
      [3, 3, 3],
      [4, 5, 4],
      [2, 3, 2],
      [3, 4, 5],
    ]
    for (const size of others) expect(written(box(...size))).not.toContain('nested-boxes')
    expect(written(capped('up', 'front'))).not.toContain('shape-first')
    for (const id of ['shift-3x3x5', 'diagonal-3x3x5', 'tilt-3'])
      expect(written(must(puzzleById(id)))).not.toContain('nested-boxes')
  })

  it.each(BOXES)(
    'lead home, every goal in its order, every sentence true: %i x %i x %i',
    (...size) => {
      const puzzle = box(...size)
      for (const { from, route } of routesOf(puzzle, 6)) {
        expect(trailOf(puzzle, route).states[0]).toEqual(from)
        expectGood(puzzle, schoolOf(puzzle), route)
      }
    },
  )

  it.each([
    ['3 x 5 x 3', () => box(3, 5, 3)],
    ['5 x 3 x 3', () => box(5, 3, 3)],
    ['cut diagonally', () => must(puzzleById('diagonal-3x3x5-half'))],
  ] as const)('lead home by slides, also where centres tell: %s', (_, made) => {
    const puzzle = made()
    const slideIn = schoolOf(puzzle, ['slide-in'])
    for (let seed = 1; seed <= 6; seed++) {
      const route = must(plan(puzzle, slideIn, drawn(puzzle, seed)))
      expectGood(puzzle, slideIn, route)
    }
  })

  it.each([
    ['up', 'down'],
    ['left', 'right'],
    ['front', 'back'],
  ])('lead a core with caps home, first by its shape: %s and %s', (...caps) => {
    const puzzle = capped(...caps)
    expect(written(puzzle)).toContain('shape-first')
    for (const { route } of routesOf(puzzle, 5)) expectGood(puzzle, schoolOf(puzzle), route)
  })

  it('leave at the end of each step what the stages before have done', () => {
    const puzzle = box(3, 5, 3)
    const stages = stagesOf(schoolOf(puzzle), {})
    for (const { route } of routesOf(puzzle, 6)) {
      const { states, firstOfStep, stageOfStep, steps } = trailOf(puzzle, route)
      steps.forEach((_, s) => {
        const before = stages[stageOfStep[s] - 1]
        if (!before) return
        const base = directionOfName(route.base)
        const end = states[firstOfStep[s + 1]]
        expect(frameMeeting(puzzle, before.goal, base, end)).toBeDefined()
      })
    }
  })

  it('owe a half turn of the work side as long as it was turned an odd number of times', () => {
    const puzzle = box(3, 5, 3)
    let owing = 0
    for (const { route } of routesOf(puzzle, 4)) {
      const trail = trailOf(puzzle, route)
      trail.steps.forEach(({ workSide }, s) => {
        const [first, end] = [trail.firstOfStep[s], trail.firstOfStep[s + 1]]
        expect(owedAt(puzzle, trail, end)).toEqual([])
        for (let done = first + 1; done < end; done++) {
          const made = trail.tape.slice(first, done).filter(({ name }) => name === workSide)
          const isOdd = made.length % 2 === 1
          expect(owedAt(puzzle, trail, done)).toEqual(isOdd ? [workSide] : [])
          if (isOdd) owing++
        }
      })
    }
    expect(owing).toBeGreaterThan(20)
  })

  it('a turn of the whole puzzle while the work side is owed is told as that', () => {
    const puzzle = box(3, 5, 3)
    const [{ from, route }] = routesOf(puzzle, 1)
    const trail = trailOf(puzzle, route)
    const at = trail.tape.findIndex((_, done) => owedAt(puzzle, trail, done).length > 0)
    const begun = trail.tape
      .slice(0, at)
      .reduce(
        (bench, { name }) => follow(bench, { kind: 'turn', atMs: 0, name }),
        follow(openBench(puzzle, from), { kind: 'route', atMs: 0, route }),
      )
    const whole = follow(begun, { kind: 'turn', atMs: 1, name: 'y2' })
    expect(whole.deviation).toMatchObject({
      slip: 'regrip',
      owed: owedAt(puzzle, trail, at)[0],
    })
  })
})

describe('a selection in boxes that lie in each other', () => {
  it('counts the pieces of each, by layer and column, wherever the ends are', () => {
    for (const [puzzle, letter] of [
      [box(3, 5, 3), 'D'],
      [box(3, 3, 5), 'F'],
      [box(5, 3, 3), 'R'],
    ] as const) {
      const base = directionOfLetter(letter)
      const count = (select: object) => selected(puzzle, select, base).length
      for (const number of [1, 2])
        for (const layer of ['base', 'last'])
          for (const column of ['corner', 'side'])
            expect(count({ box: number, layers: [layer], columns: [column] })).toBe(4)
      expect(count({ box: 0, columns: ['corner'] })).toBe(4)
      expect(count({ box: 1, columns: ['axis'] })).toBe(2)
      expect(count({ box: 3 })).toBe(0)
    }
  })
})
