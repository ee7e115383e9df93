import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { schoolNamed } from '../schools'
import { scramble, scrambledState } from '../scramble/scramble'
import { isSolved, rotateState, turnAll } from '../state'
import { plan } from './plan'
import { turnsOfRoute, type Route } from './route'
import { shorten, type Watch } from './shorten'
import { owedAt, trailOf } from './standing'
import { statesAfterStages } from './verify'
import { claimsOf } from './claimed.testing'

const SCHOOL = 'piece-by-piece'

/** Over after so many pauses, so that tests do not hang on the clock. */
function watch(pauses: number, told: number[] = []): Watch {
  let left = pauses
  return {
    isOver: () => left <= 0,
    pause: () => {
      left--
      return Promise.resolve()
    },
    onBetter: (turnCount) => told.push(turnCount),
  }
}

function routeOf(id: string, seed: number) {
  const puzzle = must(puzzleById(id))
  const school = must(schoolNamed(id, SCHOOL))
  const held = rotateState(
    scrambledState(puzzle, scramble(puzzle, seed)),
    puzzle.holds[seed % puzzle.holds.length],
  )
  const route = must(plan(puzzle, school, held))
  // Planning may have found another order of the work.
  return { puzzle, school: must(schoolNamed(id, SCHOOL)), held, route }
}

function expectLeadsHome({ puzzle, school, held }: ReturnType<typeof routeOf>, route: Route) {
  const turns = turnsOfRoute(route).map(({ name }) => puzzle.turnByName.get(name) as never)
  expect(isSolved(puzzle, must(turnAll(puzzle, held, turns)))).toBe(true)
  expect(statesAfterStages(puzzle, school, route).every(({ met }) => met)).toBe(true)
}

describe('a shorter way', () => {
  it.each(['cube-3', 'box-3x3x2', 'tetra-3', 'shift-3x3x5'])(
    'is found for %s, leads home and meets the goal of every stage',
    async (id) => {
      const given = routeOf(id, 3)
      const told: number[] = []
      const { puzzle, school, route } = given
      const found = await shorten(puzzle, school, route, puzzle.definition.colours, watch(14, told))
      expect(found.turnCount).toBeLessThan(route.turnCount)
      expect(told.at(-1)).toBe(found.turnCount)
      expect([...told].sort((a, b) => b - a)).toEqual(told)
      expectLeadsHome(given, found)
      const trail = trailOf(puzzle, found)
      expect(owedAt(puzzle, trail, trail.tape.length)).toEqual([])
      const step = trailOf(puzzle, found).steps.find(({ kind }) => kind === 'found')
      expect(claimsOf('foundTogether', step)).toHaveLength(1)
    },
  )

  it('is the way that was given when time is up at once', async () => {
    const { puzzle, school, route } = routeOf('cube-3', 1)
    const found = await shorten(puzzle, school, route, puzzle.definition.colours, watch(0))
    expect(found).toBe(route)
  })
})

describe('the frame of a route', () => {
  it('ends as the rotation that every piece has, when the hold is taken first', () => {
    for (const seed of [1, 2, 5]) {
      const { puzzle, route } = routeOf('cube-3', seed)
      const trail = trailOf(puzzle, route)
      const end = trail.states[trail.states.length - 1]
      expect(trail.frames[trail.frames.length - 1]).toBe(end[0])
    }
  })
})
