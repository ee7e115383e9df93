import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { summaryOf } from '../core/statistics/summary'
import { totalsOf } from '../core/statistics/testing'
import { lookAtLog, type LogFilter } from './log'
import { allRows } from './pool'
import { firstProfile } from './named'
import { makeSolver } from './profiles'
import { addNewSolves, type NewSolve } from './solves'
import { must } from '../core/result'
import { freshDatabase } from './testDatabase'

let discard: () => Promise<void>
let profileId: string

const VALUES = {
  puzzle: ['box-4x4x5', 'cube-2', 'tetra-3'],
  solver: ['Gull', 'Kelp', 'Tern'],
  school: ['face-first', 'one-trigger'],
}

const solve: fc.Arbitrary<NewSolve> = fc
  .record({
    puzzleId: fc.constantFrom(...VALUES.puzzle),
    solver: fc.constantFrom('', ...VALUES.solver),
    school: fc.constantFrom(undefined, ...VALUES.school),
    finishedAt: fc.nat(4000).map((minute) => new Date(1_760_000_000_000 + 60_000 * minute)),
    elapsedMs: fc.nat(90_000),
    turnCount: fc.nat(200),
    slips: fc.nat(5),
    hints: fc.nat(5),
    splits: fc.array(
      fc.record({
        stageId: fc.constant('s'),
        name: fc.constantFrom('First layer', 'Second layer', 'Last layer'),
        turnCount: fc.nat(60),
        elapsedMs: fc.nat(30_000),
      }),
      { maxLength: 4 },
    ),
  })
  .map((given) => ({
    ...given,
    variant: {},
    startState: 'a',
    scramble: '',
    solution: '',
    quarterCount: given.turnCount,
    remark: '',
  }))

let solves: NewSolve[]

beforeAll(async () => {
  discard = await freshDatabase('log')
  profileId = await firstProfile()
  const drawn = fc.sample(solve, { numRuns: 160, seed: 5 })
  // What is in the log already is passed over, so each has a moment of its own.
  solves = [...new Map(drawn.map((each) => [each.finishedAt.getTime(), each])).values()].sort(
    (a, b) => b.finishedAt.getTime() - a.finishedAt.getTime(),
  )
  await addNewSolves(profileId, solves, allRows)
  const other = must(await makeSolver('Heron'))
  await addNewSolves(other, solves.slice(0, 9), allRows)
})
afterAll(() => discard())

const filters = fc.record<LogFilter>(
  {
    puzzle: fc.constantFrom(...VALUES.puzzle, 'no-such'),
    solver: fc.constantFrom(...VALUES.solver),
    school: fc.constantFrom(...VALUES.school),
  },
  { requiredKeys: [] },
)

const passing = ({ puzzle, solver, school }: LogFilter) =>
  solves.filter(
    (each) =>
      (puzzle === undefined || each.puzzleId === puzzle) &&
      (solver === undefined || each.solver === solver) &&
      (school === undefined || each.school === school),
  )

describe('the log as it is looked at', () => {
  it('adds up what adding one by one gives, whatever the filter', async () => {
    await fc.assert(
      fc.asyncProperty(filters, async (filter) => {
        const { totals, finishedAt } = await lookAtLog(profileId, filter, 1)
        const own = passing(filter)
        const expected = summaryOf(totalsOf(own))
        const got = summaryOf(totals)
        const byName = (summary: typeof got) =>
          summary && {
            ...summary,
            stages: [...summary.stages].sort((a, b) =>
              `${a.school} ${a.name}` < `${b.school} ${b.name}` ? -1 : 1,
            ),
          }
        expect(byName(got)).toEqual(byName(expected))
        expect(finishedAt).toEqual(own.map((each) => each.finishedAt.getTime()))
      }),
      { numRuns: 40 },
    )
  })

  it('shows every solve on one page, newest first', async () => {
    await fc.assert(
      fc.asyncProperty(filters, async (filter) => {
        const first = await lookAtLog(profileId, filter, 1)
        const shown: number[] = []
        for (let page = 1; page <= first.pages; page++) {
          const view = await lookAtLog(profileId, filter, page)
          expect(view.page).toBe(page)
          shown.push(...view.solves.map((each) => each.finishedAt.getTime()))
        }
        expect(shown).toEqual(passing(filter).map((each) => each.finishedAt.getTime()))
      }),
      { numRuns: 20 },
    )
  })

  it('goes to the nearest page where there is none of that number', async () => {
    const { pages } = await lookAtLog(profileId, {}, 1)
    expect(pages).toBeGreaterThan(2)
    expect((await lookAtLog(profileId, {}, 999)).page).toBe(pages)
    expect((await lookAtLog(profileId, {}, -3)).page).toBe(1)
    expect(await lookAtLog(profileId, { puzzle: 'no-such' }, 4)).toMatchObject({
      page: 1,
      pages: 1,
      solves: [],
    })
  })

  it('offers every value that there is to filter by, of this solver alone', async () => {
    expect((await lookAtLog(profileId, {}, 1)).choices).toEqual({
      puzzles: VALUES.puzzle,
      solvers: VALUES.solver,
      schools: VALUES.school,
    })
    expect((await lookAtLog(must(await makeSolver('Plover')), {}, 1)).choices).toEqual({
      puzzles: [],
      solvers: [],
      schools: [],
    })
  })
})
