import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { doSequence } from '../notation/sequence'
import type { Puzzle } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { must } from '../result'
import { IDENTITY } from '../rotation'
import { schoolAmong, schoolsOf } from '../schools'
import { beltBarsBoxes } from '../schools/belt-bars-boxes'
import { reduction } from '../schools/reduction'
import { stagesOf, type School } from '../schools/school'
import { box, drawn } from '../testing'
import { plan } from './plan'
import { stepsOf, type Route } from './route'
import type { ClaimKind } from '../claims/claim'
import { claimsOf, Lies } from './claimed.testing'
import { trailOf } from './standing'
import { judgeFor, wholesOf } from './techniques/joinJudge'
import { macrosOf, setUpMacros } from './techniques/joinMacros'
import { faultsOf } from './truth.testing'

const taughtOn = (puzzle: Puzzle, { id }: School) => must(schoolAmong(schoolsOf(puzzle), id))

const long = box(4, 4, 5)
const bars = taughtOn(long, beltBarsBoxes)
const routes = Array.from({ length: 14 }, (_, seed) =>
  must(plan(long, bars, drawn(long, seed + 1))),
)
const joins = (route: Route) => stepsOf(route).filter(({ kind }) => kind === 'join')
const faults = (route: Route) => faultsOf(long, long.definition.colours, route)

const told = (kind: ClaimKind) => routes.flatMap(joins).flatMap((step) => claimsOf(kind, step))

describe('a pair', () => {
  it('is told with the slice that joins it and where the other half lies across from its place', () => {
    const across = routes.flatMap(joins).flatMap((step) => claimsOf('joinsBy', step))
    expect(across.filter(({ isAcross }) => isAcross).length).toBeGreaterThan(40)
    expect(told('takenApart').length).toBeGreaterThan(3)
    expect(told('offeredApart').length).toBeGreaterThan(3)
    for (const route of routes.slice(0, 6)) expect(faults(route)).toEqual([])
  })

  it('is not told falsely: another half, another turn, another place, another cost', () => {
    const lies = new Lies(4)
    for (const route of routes) expect(lies.unfoundIn(long, route)).toEqual([])
    for (const kind of ['joinsBy', 'partsAt', 'takenApart', 'offeredApart', 'equalStrip'] as const)
      expect(lies.count(kind), kind).toBeGreaterThan(0)
  })

  it('is joined at the price that the solver asks for', () => {
    const positions = routes.flatMap((route) => {
      const { steps, states, firstOfStep } = trailOf(long, route)
      return steps.flatMap(({ kind, others }, i) =>
        kind === 'join' && others.length > 0
          ? [{ from: states[firstOfStep[i]], base: directionOfName(route.base) }]
          : [],
      )
    })
    let asked = 0
    for (const { from, base } of positions.slice(0, 6)) {
      const [step] = stepsOf(must(plan(long, bars, from, { base })))
      for (const { piece, first, says } of step.others) {
        const index = (id: string | undefined) => long.pieces.findIndex((each) => each.id === id)
        const wish = { prefer: index(piece), first: index(first), base }
        const next = must(plan(long, bars, from, wish))
        const made = stepsOf(next)[0].turns.filter(({ role }) => role !== 'hold')
        expect(claimsOf('offeredApart', says)[0].turns).toEqual(made.map(({ name }) => name))
        expect(faults(next)).toEqual([])
        asked++
      }
    }
    expect(asked).toBeGreaterThan(3)
  })
})

describe('the last two of one kind', () => {
  it('are joined by equal strips, before the slice and before it goes back', () => {
    const ends = routes
      .flatMap(joins)
      .filter((step) => [...claimsOf('lastTwo', step), ...claimsOf('stripsEqual', step)].length > 0)
    const byStrips = ends.filter((step) => claimsOf('stripsEqual', step).length > 0)
    expect(byStrips.length).toBeGreaterThan(0)
    for (const { turns } of byStrips) {
      const made = turns.filter(({ role }) => role !== 'hold' && role !== 'prepare')
      expect(made.at(-1)?.name).toBe(made[0].name)
    }
    // Where a slice alone joins the two there is nothing to be made equal.
    const others = ends.filter((step) => !byStrips.includes(step))
    expect(
      others.filter(({ turns }) => turns.filter(({ role }) => role === 'do').length > 1),
    ).toEqual([])
  })
})

describe('how many more can come together by a sequence', () => {
  const cube4 = must(puzzleById('cube-4'))
  const bipyramid = must(puzzleById('bipyramid-6'))
  it.each([
    ['parts that are the only ones of their look', cube4, reduction],
    ['centres that tell', bipyramid, reduction],
    ['equal parts', long, beltBarsBoxes],
  ] as const)('is never said too low: %s', (_, puzzle, school) => {
    const stages = stagesOf(taughtOn(puzzle, school), {}).filter(
      ({ technique }) => technique.kind === 'join',
    )
    fc.assert(
      fc.property(fc.nat(stages.length - 1), fc.integer({ min: 1, max: 9999 }), (nth, seed) => {
        const { technique, goal } = stages[nth]
        if (technique.kind !== 'join') throw new Error('no join')
        const base = directionOfName('down')
        const { wholes } = wholesOf(puzzle, technique.select, base)
        const judge = judgeFor(puzzle, base, IDENTITY, wholes, goal, [])
        const state = drawn(puzzle, seed)
        const now = judge.begin(state)
        const macros = setUpMacros(puzzle, technique.sequences.join('|'))
        for (const macro of [...macrosOf(puzzle, technique.sequences.join('|')), ...macros]) {
          const after = judge.after(macro)
          // Three that all come to a piece that has none of it yet are passed by.
          if (macro.moved.length > 3) expect(after - now).toBeLessThanOrEqual(judge.mostBy(macro))
          else expect(after - now).toBeLessThanOrEqual(judge.mostBy(macro) + 1)
        }
        // What is looked at again is only what moves: the same as from the beginning.
        const some = macros[seed % macros.length]
        const counted = judge.after(some)
        expect(judge.begin(doSequence(some, state))).toBe(counted)
      }),
      { numRuns: 8 },
    )
  })
})
