import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { IN } from '../puzzle/compile'
import { must } from '../result'
import { IDENTITY } from '../rotation'
import { schoolNamed, schoolsFor, SCHOOLS } from '../schools'
import { fits } from '../schools/fits'
import { variantsOf } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { rotateState, turnFreely, type State } from '../state'
import { cube2 } from '../testing'
import { plan } from './plan'
import type { Route, RouteStep } from './route'
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

describe('every card', () => {
  it.each(CATALOG_IDS)('is true, in every school: %s', (id) => {
    fc.assert(
      fc.property(fc.nat(1000), fc.integer({ min: 1, max: 100_000 }), (nth, seed) => {
        expect(faultsIn(routeOf(id, nth, seed))).toEqual([])
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
      'a piece is said to lie elsewhere',
      (step: RouteStep) => {
        const [first, second] = step.lines ?? []
        const place = / is (the .*?)\. It goes/
        if (!first || !second) return undefined
        const there = place.exec(second.sentence)?.[1] ?? ''
        const sentence = first.sentence.replace(place, ` is ${there}. It goes`)
        return { ...step, lines: [{ ...first, sentence }, ...(step.lines ?? []).slice(1)] }
      },
    ],
    [
      'it is said to belong where it does not',
      (step: RouteStep) =>
        step.lines && {
          ...step,
          lines: step.lines.map((line) => ({
            ...line,
            sentence: line.sentence.includes('where it belongs')
              ? line.sentence.replace(', where it belongs', '')
              : line.sentence.replace(/\.$/, ', where it belongs.'),
          })),
        },
    ],
    [
      'another piece glows',
      (step: RouteStep) => step.lines && { ...step, pieces: [...step.pieces].reverse() },
    ],
    [
      'the count is wrong',
      (step: RouteStep) =>
        /All \d+ .* are home/.test(step.check)
          ? { ...step, check: step.check.replace(/All (\d+)/, 'One of the $1') }
          : undefined,
    ],
    [
      'the hold is another',
      (step: RouteStep) =>
        step.hold.includes(' front ') || step.hold.includes(' top ')
          ? { ...step, hold: step.hold.replace('front', 'back').replace('top', 'bottom') }
          : undefined,
    ],
    [
      'a place is told by its code',
      (step: RouteStep) => ({ ...step, check: `${step.check} It lies at UFR.` }),
    ],
    [
      'the check looks elsewhere',
      (step: RouteStep) =>
        step.lines && { ...step, check: step.check.replace(/ is the [^.]*\./, ' is the top tip.') },
    ],
    ['nothing says what to do', (step: RouteStep) => ({ ...step, ifNot: '' })],
    [
      'a number does not agree',
      (step: RouteStep) => ({ ...step, note: 'The three set-up turn may disturb two corner.' }),
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

  const OTHER: Readonly<Record<string, string>> = { up: 'down', down: 'up' }

  it.each([
    // A piece has each colour once, so it cannot look two ways.
    [
      'lookFor',
      /looks (up|down|to the \w+)/,
      (_: string, way: string) => `looks ${OTHER[way] ?? 'up'}`,
    ],
    ['hold', /^(\w+) (up|down)/, (_: string, __: string, way: string) => `purple ${way}`],
    [
      'check',
      /(\w+) meets \1 (in front|at the back|on the right|on the left)/,
      (_: string, __: string, at: string) => `pink meets pink ${at}`,
    ],
  ] as const)('of the 2x2x2 is found out by what it says in %s', (key, from, to) => {
    let [changed, found] = [0, 0]
    for (let seed = 1; seed < 8; seed++) {
      const made = spoilt(routeOf('cube-2', seed, seed), (step) =>
        from.test(step[key]) && step.kind === 'insert'
          ? { ...step, [key]: step[key].replace(from, to as (...parts: string[]) => string) }
          : undefined,
      )
      changed += made.changed
      found += new Set(faultsIn(made.route).map((fault) => fault.split(':')[0])).size
    }
    expect(changed).toBeGreaterThan(3)
    expect(found).toBeGreaterThanOrEqual(changed)
  })
})

describe('a card of a sequence known by heart', () => {
  const statusOf = (step: RouteStep): 'note' | 'lookFor' => (step.lines ? 'note' : 'lookFor')

  it.each([
    ['how many are right', /(one|two) of the (three|four)/, 'three of the $2'],
    ['which are right', /: the (top|upper) (\w+)/, ': the $1 other'],
    ['that none is right', /none of the/, 'one of the'],
  ])('is found out where it says wrongly %s', (_, from, to) => {
    let [changed, found] = [0, 0]
    for (const id of ['cube-3', 'tetra-3'])
      for (let seed = 1; seed < 12; seed++) {
        const given = routeOf(id, 0, seed)
        for (const stage of given.stages)
          for (const step of stage.steps) {
            const key = statusOf(step)
            const text = step[key] ?? ''
            if (step.kind !== 'known' || !from.test(text.toLowerCase())) continue
            const spoilt = { ...step, [key]: text.toLowerCase().replace(from, to) }
            const stages = given.stages.map((each) => ({
              ...each,
              steps: each.steps.map((other) => (other === step ? spoilt : other)),
            }))
            changed++
            if (faultsIn({ ...given, stages }).length > 0) found++
          }
      }
    expect(changed).toBeGreaterThan(2)
    expect(found).toBe(changed)
  })
})

describe('a card of the schools of the 2x2x2', () => {
  it('foretells the run with which the first layer is whole again', () => {
    let foretold = 0
    for (const school of SCHOOLS.filter((each) => fits(each, cube2.definition)))
      for (const variant of variantsOf(school))
        for (const seed of [1, 2, 3]) {
          const from = scrambledState(cube2, scramble(cube2, seed))
          const route = must(plan(cube2, school, from, { variant }))
          for (const stage of route.stages)
            for (const step of stage.steps.filter(({ kind }) => kind === 'twist')) {
              const run = Number(
                /until run (\d+)|With run (\d+)/
                  .exec(step.note ?? '')
                  ?.slice(1)
                  .find(Boolean),
              )
              expect(run, step.note).toBeGreaterThan(0)
              foretold++
              expect(isWholeAfter(step, run)).toBe(true)
              const sum = (step.runs?.before ?? 0) + (step.runs?.times ?? 0)
              for (let before = sum; before < run; before++)
                expect(isWholeAfter(step, before), `${before} of ${run}`).toBe(false)
            }
        }
    expect(foretold).toBeGreaterThan(20)
  })
})

/** Whether a trigger, done so often, leaves all that does not lie in the last layer as it was. */
function isWholeAfter({ algorithm }: RouteStep, runs: number): boolean {
  let state: State = new Uint8Array(cube2.pieces.length)
  for (let run = 0; run < runs; run++)
    for (const name of algorithm) {
      const turn = cube2.turnByName.get(name)
      if (turn) state = turnFreely(cube2, state, turn, new Uint8Array(state.length))
    }
  // The trigger moves two layers: the last one is where only it has been at work.
  return ['U', 'D', 'L', 'R', 'F', 'B'].some((letter) => {
    const side = cube2.turnByName.get(letter)
    if (!side) return false
    const outside = cube2.pieces.flatMap((_, p) =>
      cube2.carry[side.grip][24 * p] === IN ? [] : [p],
    )
    return outside.length === 4 && outside.every((p) => state[p] === IDENTITY)
  })
}
