import { beforeAll, describe, expect, it, vi } from 'vitest'
import { orderOfPuzzle } from '@/core/analysis/order'
import { definitionById, puzzleById } from '@/core/catalog'
import { turnsOfRoute, type Route } from '@/core/coach/route'
import { readTurns } from '@/core/notation/read'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import { readDefinition } from '@/core/puzzle/readDefinition'
import { must } from '@/core/result'
import { schoolsFor } from '@/core/schools'
import { scramble, scrambledState } from '@/core/scramble/scramble'
import { isSolved, readState, start, turnAll, writeState, type State } from '@/core/state'
import { compile } from '@/core/puzzle/compile'
import type { Coach, PlanRequest } from './coach.worker'

const worker = vi.hoisted(() => ({ coach: undefined as unknown }))
vi.mock('comlink', () => ({ expose: (api: unknown) => (worker.coach = api) }))

let coach: Coach
beforeAll(async () => {
  await import('./coach.worker')
  coach = worker.coach as Coach
})

const cube2 = must(puzzleById('cube-2'))
const silent = () => undefined

/** A 2x2x2 with two corners tied together, of the solver's own. */
const TIED = {
  schema: 1,
  id: 'own-tied',
  name: 'Tied',
  mechanism: { kind: 'box', size: [2, 2, 2] },
  glue: [
    [
      [0.5, 0.5, 0.5],
      [0.5, 0.5, -0.5],
    ],
  ],
}

function request(puzzle: Puzzle, school: string, state: State, more: Partial<PlanRequest> = {}) {
  return {
    puzzleId: puzzle.definition.id,
    school,
    variant: {},
    state: writeState(state),
    scheme: puzzle.definition.colours,
    hand: 'right' as const,
    ...more,
  }
}

const scrambled = (puzzle: Puzzle, seed: number) => scrambledState(puzzle, scramble(puzzle, seed))

function expectHome(puzzle: Puzzle, from: State, route: Route): void {
  const turns = turnsOfRoute(route).map(({ name }) => puzzle.turnByName.get(name) as Turn)
  expect(isSolved(puzzle, must(turnAll(puzzle, from, turns)))).toBe(true)
}

describe('a plan', () => {
  it.each(['cube-2', 'tetra-3', 'shift-3x3x5'])('leads %s home in every school', (id) => {
    const puzzle = must(puzzleById(id))
    const state = scrambled(puzzle, 7)
    for (const school of schoolsFor(id)) {
      const route = must(coach.plan(request(puzzle, school.id, state), silent))
      expect(route.school).toBe(school.id)
      expectHome(puzzle, state, route)
    }
  })

  it('tells how far the table of all states has come, never backwards', () => {
    const shares: number[] = []
    const asked = request(cube2, 'shortest', scrambled(cube2, 1))
    must(coach.plan(asked, (share) => shares.push(share)))
    expect([...shares].sort((a, b) => a - b)).toEqual(shares)
    expect(shares.every((share) => share >= 0 && share <= 1)).toBe(true)
  })

  it('says what is wrong with what is asked', () => {
    const asked = request(cube2, 'shortest', start(cube2))
    expect(coach.plan({ ...asked, puzzleId: 'no-such' }, silent)).toMatchObject({ ok: false })
    expect(coach.plan({ ...asked, school: 'no-such' }, silent)).toMatchObject({
      ok: false,
      problem: { code: 'unknown-school' },
    })
    expect(coach.plan({ ...asked, state: 'nonsense' }, silent)).toMatchObject({ ok: false })
  })

  it('says that a twisted corner cannot be led home, in every school', () => {
    const twisted = start(cube2)
    const still = cube2.pieces.findIndex(
      (_, p) => p > 0 && cube2.holds.some((r) => r !== 0 && cube2.place[24 * p + r] === p),
    )
    twisted[still] = cube2.holds.find(
      (r) => r !== 0 && cube2.place[24 * still + r] === still,
    ) as number
    for (const school of schoolsFor('cube-2'))
      expect(coach.plan(request(cube2, school.id, twisted), silent).ok).toBe(false)
  })
})

describe('a shorter way', () => {
  const puzzle = must(puzzleById('cube-3'))

  it('is found within the time, told as it gets better, and leads home', async () => {
    const state = scrambled(puzzle, 3)
    const asked = request(puzzle, 'piece-by-piece', state)
    const given = must(coach.plan(asked, silent))
    const told: { best: number; share: number }[] = []
    const found = must(
      await coach.shorten(asked, given, 60, (best, share) => {
        told.push({ best, share })
        if (best < given.turnCount) coach.stopShortening()
      }),
    )
    expect(found.turnCount).toBeLessThan(given.turnCount)
    expect(told.length).toBeGreaterThan(1)
    told.slice(1).forEach(({ best, share }, i) => {
      expect(best).toBeLessThanOrEqual(told[i].best)
      expect(share).toBeGreaterThanOrEqual(told[i].share)
    })
    expectHome(puzzle, state, found)
  })

  it('ends when it is told to stop, with the best so far', async () => {
    const state = scrambled(puzzle, 4)
    const asked = request(puzzle, 'piece-by-piece', state)
    const given = must(coach.plan(asked, silent))
    let calls = 0
    const found = must(
      await coach.shorten(asked, given, 600, () => {
        if (++calls === 3) coach.stopShortening()
      }),
    )
    // One more is told after it has been stopped, at most.
    expect(calls).toBeLessThanOrEqual(4)
    expect(found.turnCount).toBeLessThanOrEqual(given.turnCount)
    expectHome(puzzle, state, found)
  })

  it('plans by itself when the route at hand begins elsewhere', async () => {
    const here = request(puzzle, 'piece-by-piece', scrambled(puzzle, 5))
    const elsewhere = must(
      coach.plan(request(puzzle, 'piece-by-piece', scrambled(puzzle, 6)), silent),
    )
    const found = must(await coach.shorten(here, elsewhere, 0, silent))
    expect(found.from).toBe(here.state)
  })
})

describe('ways compared', () => {
  it('are of every school and variant, the fewest turns first, none fewer than the shortest', async () => {
    const asked = request(cube2, 'shortest', scrambled(cube2, 8))
    const ways = must(await coach.compare(asked, silent))
    expect(new Set(ways.map(({ school }) => school))).toEqual(
      new Set(schoolsFor('cube-2').map(({ id }) => id)),
    )
    const turns = ways.map((way) => way.turns)
    expect([...turns].sort((a, b) => a - b)).toEqual(turns)
    expect(ways[0].turns).toBe(ways.find(({ school }) => school === 'shortest')?.turns)
    ways.forEach((way) => expect(way.quarters).toBeGreaterThanOrEqual(way.turns))
  })

  it('are none where nothing leads home, and it is said', async () => {
    const swapped = start(cube2)
    const spun = cube2.holds.find((r) => r !== 0 && cube2.place[24 + r] === 1)
    swapped[1] = spun as number
    const answer = await coach.compare(request(cube2, 'shortest', swapped), silent)
    expect(answer).toMatchObject({ ok: false, problem: { code: 'unreachable' } })
  })
})

describe('starts', () => {
  it('name every side of the 2x2x2 once, and each costs what a plan from there costs', () => {
    const choices = must(coach.starts(request(cube2, 'layer-by-layer', scrambled(cube2, 2))))
    expect(new Set(choices.map(({ base }) => base)).size).toBe(choices.length)
    expect(choices.length).toBe(6)
    for (const { base, turns } of choices) {
      const asked = request(cube2, 'layer-by-layer', scrambled(cube2, 2), { base })
      expect(must(coach.plan(asked, silent)).turnCount).toBe(turns)
    }
  })
})

describe('a scramble', () => {
  it('is the same for the same seed, and its turns lead to its state', async () => {
    for (const id of ['cube-2', 'plus-3x3x3', 'tetra-3']) {
      const puzzle = must(puzzleById(id))
      const drawn = must(await coach.scramble(id, 11, silent))
      expect(must(await coach.scramble(id, 11, silent))).toEqual(drawn)
      const end = must(turnAll(puzzle, start(puzzle), must(readTurns(puzzle, drawn.turns))))
      expect(writeState(end)).toBe(drawn.state)
    }
  })

  it.each([-1, 1.5, NaN, Infinity])('is refused for the seed %s, naming it', async (seed) => {
    expect(await coach.scramble('cube-2', seed, silent)).toMatchObject({
      ok: false,
      problem: { field: 'seed' },
    })
  })
})

describe('stuck', () => {
  it('finds nothing wrong with what turns lead to, and how a hand mends what none lead to', () => {
    const puzzle = must(puzzleById('cube-3'))
    const asked = { puzzleId: 'cube-3', scheme: puzzle.definition.colours, variant: {} }
    const fine = must(coach.stuck({ ...asked, state: writeState(scrambled(puzzle, 1)) }, silent))
    expect(fine.diagnosis.finding.kind).toBe('not finished')
    expect(coach.stuck({ ...asked, state: 'nonsense' }, silent)).toMatchObject({ ok: false })
    const edge = puzzle.pieces.findIndex(({ kind }) => kind === 'edge')
    const flipped = start(puzzle)
    flipped[edge] = puzzle.holds.find(
      (r) => r !== 0 && puzzle.place[24 * edge + r] === edge,
    ) as number
    const wrong = must(coach.stuck({ ...asked, state: writeState(flipped) }, silent))
    const { finding } = wrong.diagnosis
    if (finding.kind !== 'assembly') throw new Error(finding.kind)
    // No turns mend it; a hand does.
    expect(finding.corrections.length).toBeGreaterThan(0)
    expect(wrong.remedies).toEqual([])
  })
})

describe("a puzzle of the solver's own", () => {
  const tied = compile(must(readDefinition(TIED)))

  it('is known once it has been learned, counted, and led home in the fewest turns', () => {
    const asked = request(tied, 'shortest', scrambled(tied, 3))
    expect(coach.plan(asked, silent)).toMatchObject({ ok: false })
    coach.learn([tied.definition])
    expect(definitionById(TIED.id)).toBeDefined()
    const route = must(coach.plan(asked, silent))
    expectHome(tied, must(readState(tied, asked.state)) as State, route)
    const longer = must(coach.plan({ ...asked, school: 'piece-by-piece' }, silent))
    expect(longer.turnCount).toBeGreaterThanOrEqual(route.turnCount)
    const order = must(coach.order(TIED.id, silent))
    expect(order.groupOrder).toBe(`${orderOfPuzzle(tied).groupOrder}`)
  })
})
