import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { asSaid, type Claim, type ClaimKind, type Said } from '../claims/claim'
import { DIRECTIONS, opposite, type FaceName } from '../puzzle/directions'
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
import { retold, sentencesIn } from './readStep.testing'
import { saidOn, stepsOf, withSaid, type Route, type RouteStep } from './route'
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
      'another piece glows',
      (step: RouteStep) => step.lines && { ...step, pieces: [...step.pieces].reverse() },
    ],
    [
      'the count is wrong',
      (step: RouteStep) =>
        /All \d+ .* are home/.test(sentencesIn(step.check))
          ? { ...step, check: retold(step.check, /All (\d+)/, 'One of the $1') }
          : undefined,
    ],
    [
      'a place is told by its code',
      (step: RouteStep) => ({
        ...step,
        check: [...step.check, ...asSaid('It lies at UFR.')],
      }),
    ],
    [
      'the check looks elsewhere',
      (step: RouteStep) =>
        step.lines && { ...step, check: retold(step.check, / is the [^.]*\./, ' is the top tip.') },
    ],
    ['nothing says when it is done', (step: RouteStep) => ({ ...step, check: [] })],
    [
      'a number does not agree',
      (step: RouteStep) => ({
        ...step,
        note: asSaid('The three set-up turn may disturb two corner.'),
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

  /** Another value of each thing that a claim says. */
  const FALSELY: {
    readonly [Kind in Exclude<ClaimKind, 'text'>]: (
      claim: Extract<Claim, { kind: Kind }>,
      pieces: readonly string[],
    ) => readonly Claim[]
  } = {
    pieceAt: (claim, pieces) => [
      { ...claim, place: other(claim.place, pieces) },
      { ...claim, piece: other(claim.piece, pieces) },
      ...(claim.place === undefined ? [] : [{ ...claim, place: undefined }]),
    ],
    goesTo: (claim, pieces) => [
      { ...claim, place: other(claim.place, pieces) },
      { ...claim, lies: other(claim.lies, LIES) },
      { ...claim, isOwed: claim.isOwed ? undefined : true },
      ...(claim.line === undefined ? [] : [{ ...claim, line: claim.line + 1 }]),
    ],
    turnsThere: (claim) => [
      { ...claim, lies: other(claim.lies, LIES) },
      { ...claim, was: other(claim.was, LIES) },
      { kind: 'takenOut', piece: claim.piece },
    ],
    // Told of what stays, above.
    takenOut: () => [],
    shows: (claim) =>
      claim.looks.map((look) => ({
        ...claim,
        looks: [{ ...look, toward: look.toward.map((name) => OPPOSITE[name]) }],
      })),
    sideHeld: (claim) => [
      { ...claim, at: other(claim.at, SIDES) },
      { ...claim, side: other(claim.side, SIDES) },
    ],
    holdBy: (claim) => [{ ...claim, turns: [...claim.turns, 'y'] }],
    afterTurns: (claim) => [{ ...claim, count: claim.count + 1 }],
  }
  /** Lies of each kind. */
  const ENOUGH = 24
  const LIES = ['home', 'turned', 'on'] as const
  const OPPOSITE = Object.fromEntries(
    DIRECTIONS.map((side) => [side.name, opposite(side).name]),
  ) as Record<FaceName, FaceName>
  const SIDES = DIRECTIONS.map(({ name }) => name)
  const other = <T>(value: T | undefined, all: readonly T[]): T =>
    all[(all.indexOf(value as T) + 1) % all.length]

  it('is found out in every claim that it makes, whatever of it is false', () => {
    const seen = new Map<ClaimKind, number>()
    for (const id of ['cube-2', 'cube-3', 'prism-6', 'tetra-3', 'box-3x3x5', 'shift-3x3x5']) {
      const puzzle = must(puzzleById(id))
      const pieces = puzzle.pieces.map(({ id: piece }) => piece)
      for (const route of [universalRoute(id, 3), routeOf(id, 0, 4)])
        for (const step of stepsOf(route)) {
          for (const claim of saidOn(step).flat()) {
            if (claim.kind === 'text' || (seen.get(claim.kind) ?? 0) > ENOUGH) continue
            const lies = FALSELY[claim.kind] as (c: Claim, p: readonly string[]) => readonly Claim[]
            for (const lie of lies(claim, pieces)) {
              const swap = (claims: Said) => claims.map((each) => (each === claim ? lie : each))
              const { route: told } = spoilt(route, (each) =>
                each === step ? withSaid(each, swap) : undefined,
              )
              expect(faultsIn(told).join(), JSON.stringify(lie)).toContain('untrue')
              seen.set(lie.kind, (seen.get(lie.kind) ?? 0) + 1)
            }
          }
        }
    }
    for (const kind of Object.keys(FALSELY))
      expect(seen.get(kind as ClaimKind) ?? 0, kind).toBeGreaterThan(0)
  })

  it.each([
    [
      'check',
      /(\w+) meets \1 (in front|at the back|on the right|on the left)/,
      (_: string, __: string, at: string) => `pink meets pink ${at}`,
    ],
  ] as const)('of the 2x2x2 is found out by what it says in %s', (key, from, to) => {
    let [changed, found] = [0, 0]
    for (let seed = 1; seed < 8; seed++) {
      const made = spoilt(routeOf('cube-2', seed, seed), (step) =>
        from.test(sentencesIn(step[key])) && step.kind === 'insert'
          ? { ...step, [key]: retold(step[key], from, to) }
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
            const text = sentencesIn(step[key] ?? [])
            if (step.kind !== 'known' || !from.test(text.toLowerCase())) continue
            const spoilt = { ...step, [key]: asSaid(text.toLowerCase().replace(from, to)) }
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
                  .exec(sentencesIn(step.note ?? []))
                  ?.slice(1)
                  .find(Boolean),
              )
              expect(run, sentencesIn(step.note ?? [])).toBeGreaterThan(0)
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
