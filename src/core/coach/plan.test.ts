import { beforeAll, describe, expect, it } from 'vitest'
import { directionOfName, DIRECTIONS } from '../puzzle/directions'
import { seededRandom } from '../random'
import { must } from '../result'
import { drawState } from '../scramble/scramble'
import { SCHOOLS, schoolsOf } from '../schools'
import { fits } from '../schools/fits'
import { variantsOf, type School, type Variant } from '../schools/school'
import { distanceOf, halfTurnTable } from '../search/distanceTable'
import type { Scheme } from '../puzzle/colours'
import { start, writeState, type State } from '../state'
import { textOf } from '../words/span'
import { cube2 } from '../testing'
import { plan, rankStarts } from './plan'
import { stepsOf, turnsOfRoute, type Route } from './route'
import { sayCard } from './sayCard'
import { borrowedAt, owedAt, trailOf } from './standing'
import { statesAfterStages } from './verify'

/** All that the cards of a route say. */
function textsOf(route: Route, scheme: Scheme): string[] {
  const trail = trailOf(cube2, route)
  return trail.steps.flatMap((_, nth) => {
    const { others, lines, usesClock, ...words } = sayCard(cube2, scheme, trail, nth)
    expect(usesClock).toBe(false)
    return [...Object.values(words), ...others, ...lines].map((spans) => textOf(spans))
  })
}

const states: State[] = []
/** For the default variant of each school, a tenth for the others; the benchmark does 10,000. */
const MANY = 120

/** The written schools of the 2x2x2. */
const OWN = SCHOOLS.filter((school) => fits(school, cube2.definition))

beforeAll(() => {
  const random = seededRandom(20261125)
  for (let i = 0; i < MANY; i++) states.push(drawState(cube2, random))
})

const cases = OWN.flatMap((school) =>
  variantsOf(school).map(
    (variant, i) =>
      [`${school.id} ${Object.values(variant).join('/')}`, school, variant, i === 0] as const,
  ),
)

/** Follows a route on the engine: every stage's goal met in order, home at the end. */
function expectLeadsHome(school: School, variant: Variant, state: State): void {
  const route = must(plan(cube2, school, state, { variant }))
  expect(statesAfterStages(cube2, school, route).filter(({ met }) => !met)).toEqual([])
  expect(route.from).toBe(writeState(state))
}

describe('a route', () => {
  it.each(cases)('leads home stage by stage: %s', (_, school, variant, isDefault) => {
    for (const state of states.slice(0, isDefault ? MANY : MANY / 10))
      expectLeadsHome(school, variant, state)
  })

  it('needs no turn from the finished puzzle, in any hold', () => {
    for (const school of OWN)
      for (const hold of cube2.holds) {
        const held = start(cube2).map(() => hold)
        expect(must(plan(cube2, school, held)).turnCount).toBe(0)
      }
  })

  it('is refused for a state that no turns reach, in words', () => {
    const twisted = start(cube2)
    twisted[7] = cube2.holds.find((r) => r !== 0 && cube2.place[24 * 7 + r] === 7) ?? 0
    for (const school of OWN) {
      const route = plan(cube2, school, twisted)
      expect(route.ok ? '' : route.problem.sentence).toMatch(/No turns lead here/)
    }
  })

  it('starts with the colour that is asked for', () => {
    for (const side of DIRECTIONS)
      for (const school of OWN)
        expect(must(plan(cube2, school, states[0], { base: side })).base).toBe(side.name)
  })

  it('starts with the cheapest colour if none is asked for', () => {
    for (const school of OWN.slice(0, 3))
      for (const state of states.slice(0, 20)) {
        const [first] = rankStarts(cube2, school, state)
        expect(must(plan(cube2, school, state)).base).toBe(first.base.name)
      }
  })

  it('of the shortest school is exactly as long as the table says', () => {
    const shortest = schoolsOf(cube2).find(({ id }) => id === 'shortest') as School
    const table = halfTurnTable(cube2)
    for (const state of states)
      expect(must(plan(cube2, shortest, state)).turnCount).toBe(distanceOf(cube2, table, state))
  })

  it('for the left hand leads home too, with the mirrored algorithms', () => {
    const count = (text: string, letter: string) => text.split(letter).length - 1
    for (const school of OWN) {
      let left = 0
      let right = 0
      for (const state of states.slice(0, 25)) {
        const route = must(plan(cube2, school, state, { hand: 'left' }))
        expect(statesAfterStages(cube2, school, route).every(({ met }) => met)).toBe(true)
        const turns = turnsOfRoute(route)
          .map(({ name }) => name)
          .join(' ')
        left += count(turns, 'L')
        right += count(turns, 'R')
      }
      expect(left, school.id).toBeGreaterThan(right)
    }
  })

  it('takes the piece that the solver prefers first', () => {
    const school = SCHOOLS[0]
    for (const state of states.slice(0, 100)) {
      const route = must(plan(cube2, school, state))
      const insert = stepsOf(route).find(({ others }) => others.length > 0)
      if (!insert || insert.kind !== 'insert') continue
      const wanted = insert.others[0].piece
      const prefer = cube2.pieces.findIndex(({ id }) => id === wanted)
      const base = directionOfName(route.base)
      const next = must(plan(cube2, school, state, { prefer, base }))
      expect(stepsOf(next).find(({ kind }) => kind === 'insert')?.pieces).toEqual([wanted])
    }
  })
})

describe('debts', () => {
  it.each(cases.filter(([, , , isDefault]) => isDefault))(
    'are all paid at the end: %s',
    (_, school, variant) => {
      for (const state of states.slice(0, 15)) {
        const trail = trailOf(cube2, must(plan(cube2, school, state, { variant })))
        const end = trail.tape.length
        expect(owedAt(cube2, trail, end)).toEqual([])
        trail.steps.forEach((_, step) => {
          for (const { backAtStep } of borrowedAt(
            cube2,
            school,
            trail,
            step,
            trail.firstOfStep[step],
          ))
            expect(backAtStep).toBeGreaterThanOrEqual(step)
        })
        for (let done = 0; done <= end; done++) {
          const step = trail.tape[Math.min(done, end - 1)]?.step ?? 0
          if (done === trail.firstOfStep[step + 1])
            expect(owedAt(cube2, trail, done), 'at the end of a step').toEqual([])
        }
      }
    },
  )

  it('name set-up turns with the next undo first', () => {
    // A first-layer insertion of the form S A S' somewhere among the states.
    const school = SCHOOLS.find(({ id }) => id === 'layer-by-layer') as School
    const found = states.slice(0, 200).some((state) => {
      const trail = trailOf(cube2, must(plan(cube2, school, state)))
      const first = trail.tape.findIndex(({ role }) => role === 'setup')
      if (first < 0) return false
      const setup = trail.tape
        .slice(first)
        .filter(({ role, step }) => role === 'setup' && step === trail.tape[first].step)
      const undo = trail.tape.filter(
        ({ role, step }) => role === 'undo' && step === trail.tape[first].step,
      )
      expect(owedAt(cube2, trail, first + setup.length)).toEqual(undo.map(({ name }) => name))
      return true
    })
    expect(found).toBe(true)
  })
})

describe('the words of a step', () => {
  const all = () =>
    OWN.flatMap((school) =>
      variantsOf(school).flatMap((variant) =>
        states
          .slice(0, 10)
          .flatMap((state) => stepsOf(must(plan(cube2, school, state, { variant })))),
      ),
    )

  it('are there for every step, and finished', () => {
    for (const step of all()) {
      // The pointer may be what the card begins with.
      for (const said of [step.lines ?? step.lookFor, step.check, step.hold, step.hints.nudge])
        expect(said.length, step.id).toBeGreaterThan(0)
      expect(JSON.stringify(step)).not.toMatch(/undefined|NaN|\{base\}|\{last\}|null/)
    }
  })

  it('use the colours of the copy', () => {
    const scheme = cube2.definition.colours.map((colour) => ({ ...colour, name: `x${colour.id}` }))
    for (const school of OWN)
      textsOf(must(plan(cube2, school, states[1], { scheme })), scheme).forEach((text) =>
        expect(text).not.toMatch(/(?<!x)\b(white|yellow|orange|blue|green)\b/),
      )
  })
})
