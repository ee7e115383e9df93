/** Routes as programs stored them before there were claims: sentences in the place of claims. */
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { must } from '../result'
import { schoolsFor } from '../schools'
import { scramble, scrambledState } from '../scramble/scramble'
import { textOf } from '../words/span'
import { plan } from './plan'
import type { Route } from './route'
import { sayCard } from './sayCard'
import { trailOf } from './standing'
import { asBefore } from './stored.testing'

const routeOf = (id: string, seed: number): Route => {
  const puzzle = must(puzzleById(id))
  const state = scrambledState(puzzle, scramble(puzzle, seed))
  return must(plan(puzzle, schoolsFor(id)[0], state))
}

describe('a route that was stored before there were claims', () => {
  it.each(['cube-2', 'cube-3', 'prism-6', 'box-3x3x5'])(
    'says on a bench what it said: %s',
    (id) => {
      const puzzle = must(puzzleById(id))
      const scheme = puzzle.definition.colours
      const route = routeOf(id, 3)
      const trail = trailOf(puzzle, route)
      const before = trailOf(puzzle, asBefore(route))
      expect(before.steps.length).toBeGreaterThan(3)
      expect(before.states).toEqual(trail.states)
      before.steps.forEach((step, nth) => {
        const [was, is] = [before, trail].map((each) => sayCard(puzzle, scheme, each, nth))
        for (const part of [
          'lookFor',
          'hold',
          'check',
          'note',
          'nudge',
          'pointer',
          'halfway',
        ] as const)
          expect(textOf(was[part]), `${step.id} ${part}`).toBe(textOf(is[part]))
        expect(was.lines.map((line) => textOf(line))).toEqual(is.lines.map((line) => textOf(line)))
        expect(textOf(was.ifNot)).toBe('A turn went another way.')
      })
    },
  )
})
