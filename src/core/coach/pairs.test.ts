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
import { stepsOf, type Route, type RouteStep } from './route'
import { retold, sentencesIn } from './readStep.testing'
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

/** The same route with its joining steps told otherwise; none where nothing changes. */
function toldOtherwise(route: Route, change: (step: RouteStep) => RouteStep): Route[] {
  let changed = false
  const stages = route.stages.map((stage) => ({
    ...stage,
    steps: stage.steps.map((step) => {
      if (step.kind !== 'join') return step
      const other = change(step)
      changed ||= JSON.stringify(other) !== JSON.stringify(step)
      return other
    }),
  }))
  return changed ? [{ ...route, stages }] : []
}

describe('a pair', () => {
  it('is told with the slice that joins it and where the other half lies across from its place', () => {
    const lines = routes.flatMap(joins).flatMap(({ lines: own = [] }) => own)
    expect(
      lines.filter(({ says }) => sentencesIn(says).includes('across to the')).length,
    ).toBeGreaterThan(40)
    for (const route of routes.slice(0, 6)) expect(faults(route)).toEqual([])
  })

  it('is not told falsely: another half, another turn, another place, a quarter turn across', () => {
    const lie = (from: RegExp, to: string) => {
      const told = routes.flatMap((route) =>
        toldOtherwise(route, (step) => ({
          ...step,
          ...(step.lines
            ? {
                lines: step.lines.map((line) => ({
                  ...line,
                  says: retold(line.says, from, to),
                })),
              }
            : {}),
        })),
      )
      expect(told.length, String(from)).toBeGreaterThan(0)
      for (const route of told.slice(0, 3)) expect(faults(route), String(from)).not.toEqual([])
    }
    lie(/The first (\S+) joins/, 'The second $1 joins')
    lie(/ joins them: it brings the first/, ' joins them: it brings the second')
    lie(/, by then the (\w+)/, ', by then the other')
    lie(/ across to/, ' to')
  })

  it('costs what it is said to cost, and what is offered instead joins the same pair', () => {
    const steps = routes.flatMap(joins)
    expect(
      steps.filter(({ note }) => sentencesIn(note ?? []).includes('Taken apart for it:')).length,
    ).toBeGreaterThan(3)
    expect(steps.flatMap(({ others }) => others).length).toBeGreaterThan(3)
    const lie = (change: (step: RouteStep) => RouteStep) => {
      const told = routes.flatMap((route) => toldOtherwise(route, change))
      expect(told.length).toBeGreaterThan(0)
      for (const route of told.slice(0, 3)) expect(faults(route)).not.toEqual([])
    }
    const noting = (from: RegExp, to: string) =>
      lie((step) => ({ ...step, ...(step.note ? { note: retold(step.note, from, to) } : {}) }))
    noting(/what lies at the \w+/, 'what lies at the other')
    noting(
      /Taken apart for it: .+? yet\./,
      'Taken apart for it: what lies in nine places, no pairs yet.',
    )
    noting(/^/, 'The pair at the top front edge is parted for it. ')
    noting(/^/, 'Three pairs are parted for it. ')
    const offering = (from: RegExp, to: string) =>
      lie((step) => ({
        ...step,
        others: step.others.map((other) => ({
          ...other,
          says: retold(other.says, from, to),
        })),
      }))
    offering(/, [^,]+\.$/, ', U2.')
    offering(/at the \w+/, 'at the other')
    offering(/: \w+ turn/, ': nine turn')
    const length = ({ says }: RouteStep['others'][number]) => sentencesIn(says).split(' ').length
    lie((step) => {
      const [first, ...rest] = step.others
      return rest.some((each) => length(each) > length(first))
        ? { ...step, others: [...step.others].reverse() }
        : step
    })
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
        expect(sentencesIn(says)).toContain(`, ${made.map(({ name }) => name).join(' ')}.`)
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
      .filter(({ note }) => sentencesIn(note ?? []).includes('They are the last two'))
    const byStrips = ends.filter(({ note }) =>
      sentencesIn(note ?? []).includes('strips are made equal'),
    )
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

  it('are not told falsely: places that hold something else', () => {
    const told = routes.flatMap((route) =>
      toldOtherwise(route, (step) => ({
        ...step,
        ...(step.note
          ? { note: retold(step.note, /both hold \w+ centres/, 'both hold violet centres') }
          : {}),
      })),
    )
    expect(told.length).toBeGreaterThan(0)
    for (const route of told) expect(faults(route)).not.toEqual([])
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
