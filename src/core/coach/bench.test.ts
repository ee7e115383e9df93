import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { must } from '../result'
import { scramble, scrambledState } from '../scramble/scramble'
import { schoolNamed, SCHOOLS } from '../schools'
import { accountOf } from '../statistics/splits'
import { sameState } from '../state'
import { cube2 } from '../testing'
import {
  follow,
  hasJustHeld,
  held,
  holdAhead,
  openBench,
  replay,
  turnCountOf,
  type Bench,
  type BenchEvent,
} from './bench'
import { plan } from './plan'
import { stepsOf, turnsOfRoute, type Route } from './route'
import { benchFrom, snapshotOf } from './snapshot'

const school = SCHOOLS[0]
const from = (seed: number) => scrambledState(cube2, scramble(cube2, seed))
const routeOf = (seed: number) => must(plan(cube2, school, from(seed)))
const turn = (name: string): BenchEvent => ({ kind: 'turn', atMs: 0, name })
const undo: BenchEvent = { kind: 'undo', atMs: 0 }

const planned = (seed: number): Bench =>
  follow(openBench(cube2, from(seed)), { kind: 'route', atMs: 0, route: routeOf(seed) })

/** The events of someone who does what the card says. */
function obediently(route: Route): BenchEvent[] {
  return stepsOf(route).flatMap(({ turns }): BenchEvent[] =>
    turns.length === 0 ? [{ kind: 'pass', atMs: 0 }] : turns.map(({ name }) => turn(name)),
  )
}

const seeds = fc.nat(5000)

describe('a bench', () => {
  it('is solved when the card has been followed, without a slip', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const end = replay(planned(seed), obediently(routeOf(seed)))
        expect(end.solved).toBe(true)
        expect(end.slips).toBe(0)
        expect(turnCountOf(end)).toBe(routeOf(seed).turnCount)
        expect(end.step).toBe(stepsOf(routeOf(seed)).length)
      }),
      { numRuns: 40 },
    )
  })

  it('counts its steps on when it is planned again, and back when a turn is taken back', () => {
    fc.assert(
      fc.property(seeds, fc.nat(40), (seed, far) => {
        const here = replay(planned(seed), obediently(routeOf(seed)).slice(0, far))
        if (here.solved) return
        const route = must(plan(cube2, school, here.state))
        const again = follow(here, { kind: 'route', atMs: 0, route })
        expect(again.stepsBefore + again.step).toBe(here.stepsBefore + here.step)
        const [first] = turnsOfRoute(route)
        const moved = follow(again, turn(first.name))
        expect(moved.stepsBefore).toBe(again.stepsBefore)
        expect(follow(moved, undo).stepsBefore).toBe(again.stepsBefore)
        // Snapshots of earlier programs did not count on.
        const kept = snapshotOf(again, 7)
        expect(must(benchFrom(cube2, kept)).stepsBefore).toBe(again.stepsBefore)
        expect(must(benchFrom(cube2, { ...kept, stepsBefore: undefined })).stepsBefore).toBe(0)
      }),
      { numRuns: 40 },
    )
  })

  it('is where it was after any turn and its undo', () => {
    fc.assert(
      fc.property(seeds, fc.nat(60), fc.nat(cube2.turns.length - 1), (seed, far, index) => {
        const here = replay(planned(seed), obediently(routeOf(seed)).slice(0, far))
        const back = replay(here, [turn(cube2.turns[index].name), undo])
        expect(sameState(back.state, here.state)).toBe(true)
        expect(back.done).toBe(here.done)
        expect(back.step).toBe(here.step)
        expect(back.deviation).toEqual(here.deviation)
      }),
      { numRuns: 60 },
    )
  })

  it('takes two quarter turns for a half turn', () => {
    const route = must(plan(cube2, must(schoolNamed('cube-2', 'shortest')), from(12)))
    const half = turnsOfRoute(route).findIndex(({ name }) => name.endsWith('2'))
    if (half < 0) throw new Error('this scramble has no half turn in its solution')
    const names = turnsOfRoute(route).map(({ name }) => name)
    const open = follow(openBench(cube2, from(12)), { kind: 'route', atMs: 0, route })
    const before = replay(open, names.slice(0, half).map(turn))
    const quarter = names[half].slice(0, -1)
    const between = follow(before, turn(quarter))
    expect(between.deviation).toBeUndefined()
    expect(between.done).toBe(half)
    expect(follow(between, turn(quarter)).done).toBe(half + 1)
  })

  it('is shown in the hold of its card, which is taken by the turns ahead and stored with none', () => {
    let ahead = 0
    fc.assert(
      fc.property(seeds, fc.nat(40), (seed, far) => {
        const route = routeOf(seed)
        const here = replay(planned(seed), obediently(route).slice(0, far))
        const shown = held(here)
        const names = holdAhead(here)
        ahead += names.length
        // The same card, after the same turns, the hold taken.
        expect(shown.step).toBe(here.step)
        expect(turnCountOf(shown)).toBe(turnCountOf(here))
        expect(holdAhead(shown)).toEqual([])
        const taken = replay(here, names.map(turn))
        expect(sameState(taken.state, shown.state)).toBe(true)
        expect(taken.done).toBe(shown.done)
        expect(taken.deviation).toBeUndefined()
        // Taken back like any other turn, and known as what it is.
        if (names.length > 0 && taken.step === here.step) {
          expect(hasJustHeld(taken)).toBe(true)
          expect(sameState(held(follow(taken, undo)).state, shown.state)).toBe(true)
        }
      }),
      { numRuns: 60 },
    )
    expect(ahead).toBeGreaterThan(0)
  })

  it('calls a turn of the layer before the hold a wrong hold', () => {
    const seed = Array.from({ length: 200 }, (_, i) => i).find((each) => {
      const [first, second] = turnsOfRoute(routeOf(each))
      return first?.role === 'hold' && second?.role === 'do'
    })
    const route = routeOf(seed ?? 0)
    const [hold, next] = turnsOfRoute(route)
    const begun = replay(planned(seed ?? 0), [{ kind: 'pass', atMs: 0 }])
    const { deviation } = follow(begun, turn(next.name))
    expect(deviation).toEqual({ made: next.name, expected: hold.name, slip: 'wrong-hold' })
  })

  it('notices a turn and a re-grip inside an unfinished run', () => {
    let seen = 0
    for (let seed = 0; seed < 60 && seen < 5; seed++) {
      const events = obediently(routeOf(seed))
      const open = planned(seed)
      const at = events.findIndex((_, i) => {
        const { trail, done } = replay(open, events.slice(0, i))
        const now = trail?.tape[done]
        return (now?.run ?? 0) > 1 && trail?.tape[done - 1]?.run === now?.run
      })
      if (at < 0) continue
      seen++
      const inside = replay(open, events.slice(0, at))
      expect(follow(inside, turn('y')).deviation?.slip).toBe('regrip')
      const wrong = cube2.turns.find(
        ({ name, whole }) =>
          !whole && name !== inside.trail?.tape[inside.done].name && /^B/.test(name),
      )
      const { deviation } = follow(inside, turn(wrong?.name ?? ''))
      expect(deviation?.slip).toBe('unfinished-run')
      expect(deviation?.run?.at).toBe(inside.trail?.tape[inside.done].run)
    }
    expect(seen).toBeGreaterThan(0)
  })

  it('is not disturbed by an event that does not fit', () => {
    const here = planned(3)
    expect(follow(here, turn('Q'))).toBe(here)
    expect(follow(openBench(cube2, from(3)), undo)).toEqual(openBench(cube2, from(3)))
  })
})

describe('the account of a solve', () => {
  it('splits every turn and all time among the stages', () => {
    fc.assert(
      fc.property(
        seeds,
        fc.array(fc.nat(3000), { minLength: 150, maxLength: 150 }),
        (seed, gaps) => {
          const route = routeOf(seed)
          let atMs = 0
          const events = [
            { kind: 'route', atMs: 0, route } as const,
            ...obediently(route).map((event, i) => ({ ...event, atMs: (atMs += gaps[i]) })),
          ]
          const account = accountOf(cube2, school, route.variant, from(seed), events)
          expect(account.solved).toBe(true)
          expect(account.splits.map(({ stageId }) => stageId)).toEqual(
            route.stages.map(({ id }) => id),
          )
          const sum = (key: 'turnCount' | 'elapsedMs') =>
            account.splits.reduce((total, split) => total + split[key], 0)
          expect(sum('turnCount')).toBe(account.turnCount)
          expect(sum('elapsedMs')).toBeLessThanOrEqual(account.elapsedMs)
        },
      ),
      { numRuns: 30 },
    )
  })
})
