import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import type { ClaimKind, Said } from '../claims/claim'
import { must } from '../result'
import { schoolNamed, schoolsFor } from '../schools'
import { variantsOf } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { rotateState } from '../state'
import { Lies } from './claimed.testing'
import { plan } from './plan'
import { saidOn, stepsOf, type Route, type RouteStep } from './route'
import { faultsOf } from './truth.testing'

/** A route from a scramble in some hold. */
function routeOf(id: string, nth: number, seed: number): Route {
  const puzzle = must(puzzleById(id))
  const ways = schoolsFor(id).flatMap((school) =>
    variantsOf(school).map((variant) => ({ school, variant })),
  )
  const { school, variant } = ways[nth % ways.length]
  const scrambled = scrambledState(puzzle, scramble(puzzle, seed))
  const from = rotateState(scrambled, puzzle.holds[seed % puzzle.holds.length])
  return must(plan(puzzle, school, from, { variant }))
}

function universalRoute(id: string, seed: number): Route {
  const puzzle = must(puzzleById(id))
  const school = must(schoolNamed(id, 'piece-by-piece'))
  return must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, seed))))
}

const faultsIn = (route: Route) => {
  const puzzle = must(puzzleById(route.puzzle))
  return faultsOf(puzzle, puzzle.definition.colours, route).map(
    ({ step, what }) => `${step}: ${what}`,
  )
}

/** Routes whose cards claim something of every kind, as far as states decide it: puzzle, way, seed. */
const ROUTES: readonly (readonly [string, number, number])[] = [
  ...[0, 1, 2, 3, 4, 5].map((nth) => ['cube-2', nth, 3 + nth] as const),
  ...[16, 17].map((nth) => ['cube-2', nth, 14] as const),
  ...CATALOG_IDS.flatMap((id) => [0, 1, 2].map((nth) => [id, nth, 4 + nth] as const)),
]

/** Kinds that cards must be seen to claim. */
const DECIDED: readonly ClaimKind[] = [
  'pieceAt',
  'goesTo',
  'turnsThere',
  'shows',
  'sideHeld',
  'holdBy',
  'afterTurns',
  'homeCount',
  'movedBeside',
  'comeHome',
  'setUp',
  'sumsOff',
  'standOut',
  'partsAt',
  'joinsBy',
  'together',
  'partsIn',
  'pairsLeft',
  'partsMissing',
  'grown',
  'lifts',
  'workSide',
  'commutator',
  'circle',
  'deceives',
  'lookAlike',
  'runs',
  'placedCounts',
  'onePlaced',
  'staysAt',
  'triggerRuns',
  'caseLooks',
  'looksToward',
  'barCount',
  'barsAt',
  'worksHeld',
  'mistakenFor',
]

/** A finished sentence, which no card has any more. */
const sentence = (text: string): Said => [{ kind: 'text', text }]

describe('every card', () => {
  it.each(CATALOG_IDS)('is true, in every school: %s', (id) => {
    fc.assert(
      fc.property(fc.nat(1000), fc.integer({ min: 1, max: 100_000 }), (nth, seed) => {
        const route = routeOf(id, nth, seed)
        expect(faultsIn(route)).toEqual([])
        const kinds = stepsOf(route).flatMap((step) => saidOn(step).flat())
        expect(kinds.map(({ kind }) => kind)).not.toContain('text')
      }),
      { numRuns: id === 'cube-2' ? 20 : 2 },
    )
  })

  /** A route with one sentence of each card changed; where it was. */
  function spoilt(route: Route, change: (step: RouteStep) => RouteStep | undefined) {
    let changed = 0
    const stages = route.stages.map((stage) => ({
      ...stage,
      steps: stage.steps.map((step) => {
        const next = change(step)
        if (next) changed++
        return next ?? step
      }),
    }))
    return { route: { ...route, stages }, changed }
  }

  it.each([
    [
      'another piece glows',
      (step: RouteStep) => step.lines && { ...step, pieces: [...step.pieces].reverse() },
    ],
    [
      'a place is told by its code',
      (step: RouteStep) => ({ ...step, check: [...step.check, ...sentence('It lies at UFR.')] }),
    ],
    ['nothing says when it is done', (step: RouteStep) => ({ ...step, check: [] })],
    [
      'a number does not agree',
      (step: RouteStep) => ({
        ...step,
        note: sentence('The three set-up turn may disturb two corner.'),
      }),
    ],
  ])('is found out where %s', (_, change) => {
    for (const id of ['cube-3', 'prism-6']) {
      // Not every route has a card that the change fits.
      let { route, changed } = spoilt(universalRoute(id, 4), change)
      for (let seed = 5; changed === 0 && seed < 10; seed++)
        ({ route, changed } = spoilt(universalRoute(id, seed), change))
      expect(changed).toBeGreaterThan(0)
      expect(
        new Set(faultsIn(route).map((fault) => fault.split(':')[0])).size,
      ).toBeGreaterThanOrEqual(changed)
    }
  })

  it('is found out in every claim that it makes, whatever of it is false', () => {
    const told = new Lies()
    const unfound: string[] = []
    const unseen = new Set(DECIDED)
    for (const [id, nth, seed] of ROUTES) {
      const route = routeOf(id, nth, seed)
      for (const { kind } of stepsOf(route).flatMap(saidOn).flat()) unseen.delete(kind)
      unfound.push(...told.unfoundIn(must(puzzleById(id)), route).map((lie) => `${id} ${lie}`))
    }
    expect(unfound).toEqual([])
    expect([...unseen], 'no card claims these').toEqual([])
  })
})
