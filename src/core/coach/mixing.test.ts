import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import type { Puzzle } from '../puzzle/compile'
import { must } from '../result'
import { schoolNamed, schoolsOf } from '../schools'
import type { School, Selection } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { isSolved, turnAll, type State } from '../state'
import { plan } from './plan'
import { stepsOf, turnsOfRoute, type Route } from './route'
import { prove } from './prove'
import { planShortest } from './shortest'
import { faultsOf } from './truth.testing'
import { planUniversally } from './universal'
import { statesAfterStages } from './verify'

const named = (id: string): Puzzle => must(puzzleById(id))
const stateFrom = (puzzle: Puzzle, seed: number): State =>
  scrambledState(puzzle, scramble(puzzle, seed))

function isHomeAfter(puzzle: Puzzle, from: State, route: Route): boolean {
  const turns = turnsOfRoute(route).flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])
  return isSolved(puzzle, must(turnAll(puzzle, from, turns)))
}

/** One layer is gathered by look, and all else goes home piece by piece. */
function gatherThenRest(select: Selection): School {
  const home = [{ layer: 'base', must: 'home', select }] as const
  return {
    id: 'gather-then-rest',
    name: 'Gather, then the rest',
    character: 'For the test.',
    fits: { mechanism: 'any' },
    options: [],
    stages: [
      {
        id: 'gather',
        name: 'Gathered',
        aim: 'Some pieces are home.',
        base: 'D',
        goal: home,
        technique: { kind: 'gather', must: 'home', select },
      },
      {
        id: 'rest',
        name: 'Rest',
        aim: 'All is home.',
        base: 'D',
        goal: [{ layer: 'base', must: 'looks home', select: {} }],
        technique: { kind: 'rest' },
      },
    ],
  }
}

describe('one planner', () => {
  const edges: Selection = { kinds: ['edge'], layers: ['base'] }
  for (const [id, select] of [
    ['cube-2', { kinds: ['corner'], layers: ['base'] }],
    ['cube-3', edges],
    ['tilt-3', edges],
    ['prism-6', edges],
    ['box-3x3x2', edges],
  ] as const)
    it(`mixes schools: gathers a layer of ${id}, then goes on piece by piece`, () => {
      const puzzle = named(id)
      const school = gatherThenRest(select)
      for (let seed = 1; seed <= 2; seed++) {
        const from = stateFrom(puzzle, seed)
        const route = must(plan(puzzle, school, from))
        expect(isHomeAfter(puzzle, from, route)).toBe(true)
        expect(route.stages.map(({ steps }) => steps.length > 0)).toEqual([true, true])
        const ends = statesAfterStages(puzzle, school, route)
        expect(ends.every(({ met }) => met)).toBe(true)
      }
    })

  it('plans the universal and the shortest school like any other', () => {
    for (const id of ['cube-2', 'prism-6', 'shift-3x3x5']) {
      const puzzle = named(id)
      const school = must(schoolNamed(id, 'piece-by-piece'))
      const from = stateFrom(puzzle, 3)
      const route = must(plan(puzzle, school, from))
      const own = must(planUniversally(puzzle, school, from, puzzle.definition.colours))
      expect(turnsOfRoute(route)).toEqual(turnsOfRoute(own))
      expect(stepsOf(route).map(({ id: step }) => step)).toEqual(
        stepsOf(own).map(({ id: step }) => step),
      )
      expect([route.saved, route.orbitPlan, route.base]).toEqual([own.saved, own.orbitPlan, 'up'])
    }
    const cube2 = named('cube-2')
    const from = stateFrom(cube2, 4)
    const shortest = must(schoolNamed('cube-2', 'shortest'))
    expect(must(plan(cube2, shortest, from)).turnCount).toBe(
      must(planShortest(cube2, shortest, from)).turnCount,
    )
  })

  it('says in a sentence where nothing leads home', () => {
    for (const id of ['cube-3', 'tilt-3']) {
      const puzzle = named(id)
      const from = new Uint8Array(stateFrom(puzzle, 1))
      const corner = puzzle.pieces.findIndex(({ id: piece }) => piece === 'DFL')
      const twisted = Array.from({ length: 24 }, (_, r) => r).find(
        (r) =>
          r !== from[corner] &&
          puzzle.place[24 * corner + r] === puzzle.place[24 * corner + from[corner]],
      )
      from[corner] = twisted as number
      for (const school of schoolsOf(puzzle)) {
        const route = plan(puzzle, school, from)
        expect(route.ok ? '' : route.problem.sentence, school.id).toMatch(/^No turns lead/)
      }
    }
  })
})

describe('half by half', () => {
  const twin = named('twin-3')
  const school = must(schoolNamed('twin-3', 'half-by-half'))

  it('leads conjoined cubes home, one half and then the other, every card true', () => {
    for (let seed = 1; seed <= 2; seed++) {
      const from = stateFrom(twin, seed)
      const route = must(plan(twin, school, from))
      expect(isHomeAfter(twin, from, route)).toBe(true)
      expect(statesAfterStages(twin, school, route).every(({ met }) => met)).toBe(true)
      expect(faultsOf(twin, twin.definition.colours, route)).toEqual([])
    }
  })

  it('tells every position of the last edges by heart: how they look, then where they are', () => {
    const route = must(prove(twin, school, 1))
    // Four edges that turns of their layer, exchanges and flips leave open, in each half: 96 and 12 positions.
    expect(route.listed).toBe(2 * (96 + 12))
  })

  it('turns layers of one half only until that half is home', () => {
    const route = must(plan(twin, school, stateFrom(twin, 7)))
    const letters = (from: number, to: number) =>
      new Set(
        route.stages
          .slice(from, to)
          .flatMap(({ steps }) => steps.flatMap(({ turns }) => turns))
          .map(({ name }) => name.replace(/[^A-Z]/g, '')),
      )
    expect([...letters(0, 5)].sort()).toEqual(['R', 'U'])
    expect([...letters(5, 10)].sort()).toEqual(['D', 'L'])
  })
})
