import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { orderOfPuzzle } from '../analysis/order'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { openBench, replay } from '../coach/bench'
import { plan } from '../coach/plan'
import { claimsOf } from '../coach/claimed.testing'
import { statesAfterStages } from '../coach/verify'
import { turnsOfRoute, stepsOf } from '../coach/route'
import { owedAt, stagesMet, trailOf } from '../coach/standing'
import { readTurns } from '../notation/read'
import { countTurns, simplify } from '../notation/rewrite'
import type { Puzzle } from '../puzzle/compile'
import { compile } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { multiply } from '../rotation'
import { schoolNamed } from '../schools'
import { pieceByPiece } from '../schools/piece-by-piece'
import type { School } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { isSolved, rotateState, start, turnAll, type State } from '../state'
import { diagnose } from '../stuck/diagnose'
import {
  anyGlued,
  anySolid,
  box,
  capped,
  cube3,
  turnsIn,
  after,
  gluedCube,
  looseBlocks,
} from '../testing'
import { baseCyclesOf, searchCycles, writeCycles } from './baseCycles'
import { applyEffect, effectOf, inverseEffect, followedBy } from './effects'
import { movesOf } from './moves'
import { guessedPlan, knownPlanOf, settledPlan } from './orbitPlan'
import { workOf } from './orbitsAtWork'
import { Setups } from './setups'
import { turnsOfCycle } from './cyclesHome'
import { solveUniversally, turnsOfStep, whyNotServed } from './solve'
import derived from './derived/cycles.json'

const served = CATALOG_IDS.filter((id) => whyNotServed(must(puzzleById(id))) === undefined)

function expectHome(puzzle: Puzzle, from: State): void {
  const solved = solveUniversally(puzzle, from)
  if (!solved.ok) throw new Error(solved.problem.sentence)
  const end = must(
    turnAll(
      puzzle,
      from,
      solved.value.steps.flatMap((step) => [...turnsOfStep(puzzle, step)]),
    ),
  )
  expect(isSolved(puzzle, end)).toBe(true)
}

describe('effects', () => {
  it('of loops are what they do from the finished puzzle, though pieces lie in no place on the way', () => {
    for (const puzzle of [gluedCube, must(puzzleById('shift-3x3x5'))])
      for (const { turns, effect } of movesOf(puzzle))
        expect(Array.from(effectOf(puzzle, turns))).toEqual(Array.from(effect))
  })

  it('compose as the turns do, and undo each other', () => {
    fc.assert(
      fc.property(turnsIn(cube3, 12), turnsIn(cube3, 12), (one, other) => {
        const [first, second] = [effectOf(cube3, one), effectOf(cube3, other)]
        const both = followedBy(cube3, first, second)
        expect(Array.from(both)).toEqual(Array.from(after(cube3, [...one, ...other])))
        expect(Array.from(followedBy(cube3, first, inverseEffect(cube3, first)))).toEqual(
          Array.from(start(cube3)),
        )
        const state = after(cube3, other)
        expect(Array.from(applyEffect(cube3, state, first))).toEqual(
          Array.from(after(cube3, one, state)),
        )
      }),
      { numRuns: 40 },
    )
  })
})

describe('base cycles', () => {
  it.each([
    ...served.map((id) => [id, () => must(puzzleById(id))] as const),
    // Their cycles go through loops; long ones are looked for again with later orbits left free.
    ['a cap on top', () => capped('up')] as const,
  ])('of %s move three places, and else only what is done later', (_, made) => {
    const puzzle = made()
    const { ignored, orbits, riders } = workOf(puzzle)
    const { later } = settledPlan(puzzle)?.plan ?? guessedPlan(puzzle)
    for (const [orbit, list] of baseCyclesOf(puzzle)) {
      const after = later.slice(later.indexOf(orbit) + 1)
      const free = new Set([
        ...ignored,
        ...riders,
        ...after.flatMap((o) => [...orbits[o].orbit.places]),
      ])
      for (const { turns, places, rotations } of list) {
        const end = must(turnAll(puzzle, start(puzzle), turns))
        const moved = Array.from(end).flatMap((r, p) => (r !== 0 && !free.has(p) ? [p] : []))
        expect(moved).toEqual([...places].sort((a, b) => a - b))
        places.forEach((place, i) => {
          expect(end[place]).toBe(rotations[i])
          expect(puzzle.place[24 * place + end[place]]).toBe(places[(i + 1) % 3])
        })
      }
    }
  })

  it('are shipped as the search finds them', () => {
    for (const id of [
      'cube-2',
      'cube-3',
      'box-3x3x5',
      'prism-6',
      'tetra-3',
      'diagonal-3x3x5-half',
    ]) {
      const puzzle = must(puzzleById(id))
      expect(Object.values(derived)).toContainEqual(
        JSON.parse(JSON.stringify(writeCycles(searchCycles(puzzle)))),
      )
    }
  })
})

describe('set-up tables', () => {
  it('say what set up, cycle and undo do', () => {
    const [[, bases]] = [...baseCyclesOf(cube3)]
    const setups = new Setups(cube3, bases)
    const places = [...new Set(bases.flatMap((base) => [...base.places]))]
    let checked = 0
    for (const a of places)
      for (const b of places)
        for (const c of places)
          for (const found of setups.through(a, b, c).slice(0, 2)) {
            const cycle = setups.cycle(found)
            const turns = turnsOfCycle(cube3, cycle)
            expect(turns).toHaveLength(found.length)
            const end = after(cube3, turns)
            found.places.forEach((place, i) => expect(end[place]).toBe(found.rotations[i]))
            expect(Array.from(end).filter((r) => r !== 0)).toHaveLength(3)
            expect(found.rotations.reduce((product, r) => multiply(r, product), 0)).toBe(0)
            checked++
          }
    expect(checked).toBeGreaterThan(20)
  })
})

describe('one piece at a time', () => {
  it.each(served)('leads home from scrambled states of %s, stage by stage, in any hold', (id) => {
    const puzzle = must(puzzleById(id))
    const school = must(schoolNamed(id, 'piece-by-piece'))
    for (let seed = 1; seed <= 3; seed++) {
      const drawn = scrambledState(puzzle, scramble(puzzle, seed))
      const state = rotateState(drawn, puzzle.holds[(11 * seed) % puzzle.holds.length])
      const route = must(plan(puzzle, school, state))
      for (const { met, stage } of statesAfterStages(puzzle, school, route))
        expect(met, `${id} ${seed} ${stage}`).toBe(true)
      // Everything that is set up is undone in the same step.
      const trail = trailOf(puzzle, route)
      // or left standing for the next of the same stage, and nothing is owed when a lantern is lit.
      trail.stageOfStep.forEach((stage, step) => {
        if (trail.stageOfStep[step + 1] !== stage)
          expect(owedAt(puzzle, trail, trail.firstOfStep[step + 1])).toEqual([])
      })
    }
  })

  it('does so for circles in other settings', () => {
    // Bits ride on corners and edges where all are free or all are locked.
    for (const id of ['circle-3--none', 'circle-3--up-down-front-back-left-right'])
      expectHome(
        must(puzzleById(id)),
        scrambledState(must(puzzleById(id)), scramble(must(puzzleById(id)), 2)),
      )
  })

  it.each([
    [1, 3, 2],
    [1, 5, 3],
    [1, 4, 4],
    [2, 3, 2],
    [2, 4, 2],
    [2, 3, 3],
    [2, 3, 4],
    [2, 4, 4],
    [3, 4, 3],
  ] as [number, number, number][])('does so for a box %ix%ix%i', (...size) => {
    const puzzle = box(...size)
    for (const seed of [1, 2]) expectHome(puzzle, scrambledState(puzzle, scramble(puzzle, seed)))
  })

  it('has the stages of the order that it finds, and a route carries it to where it is drawn', () => {
    const definition = must(
      readDefinition({
        schema: 1,
        id: 'flat',
        name: 'flat',
        mechanism: { kind: 'box', size: [2, 3, 4] },
      }),
    )
    const [puzzle, elsewhere] = [compile(definition), compile(definition)]
    const before = pieceByPiece(puzzle)
    if (!before) throw new Error('no school')
    const state = scrambledState(puzzle, scramble(puzzle, 5))
    const route = must(plan(puzzle, before, state))
    const school = pieceByPiece(puzzle)
    expect(school?.stages).not.toEqual(before.stages)
    expect(route.stages.map(({ id }) => id)).toEqual(school?.stages.map(({ id }) => id))
    for (const { met } of statesAfterStages(puzzle, school ?? before, route)) expect(met).toBe(true)
    expect(pieceByPiece(elsewhere)?.stages).toEqual(before.stages)
    replay(openBench(elsewhere, state), [{ kind: 'route', atMs: 0, route }])
    expect(pieceByPiece(elsewhere)?.stages).toEqual(school?.stages)
  })

  it('does so for a 3x3x3 in any solid', () => {
    fc.assert(
      fc.property(anySolid, fc.nat(1000), (definition, seed) => {
        const read = readDefinition(definition)
        fc.pre(read.ok)
        const puzzle = compile(must(read))
        expectHome(puzzle, scrambledState(puzzle, scramble(puzzle, seed)))
      }),
      { numRuns: 2 },
    )
  })

  it('says that a twisted corner cannot be led home', () => {
    const state = start(cube3)
    const corner = cube3.pieces.findIndex(({ kind }) => kind === 'corner')
    const turned = cube3.holds.find(
      (r) => r !== 0 && cube3.place[24 * corner + r] === corner,
    ) as number
    state[corner] = turned
    const solved = solveUniversally(cube3, state)
    expect(solved.ok).toBe(false)
    if (!solved.ok) expect(solved.problem.code).toBe('unreachable')
  })

  it('is not offered where blocks can lie in too many ways, and says so', () => {
    expect(pieceByPiece(looseBlocks)).toBeUndefined()
    expect(whyNotServed(looseBlocks)).toMatch(/blocked, .* more than 30,000 ways/)
  })

  it('says so of a capped puzzle whose core is glued, and nothing of it breaks', () => {
    const stiff = compile(
      must(
        readDefinition({
          schema: 1,
          id: 'stiff-caps',
          name: 'stiff caps',
          mechanism: { kind: 'capped', caps: ['up'] },
          glue: [
            [
              [1, 1, 1],
              [1, 2, 1],
            ],
          ],
        }),
      ),
    )
    expect(pieceByPiece(stiff)).toBeUndefined()
    expect(whyNotServed(stiff)).toMatch(/blocked, .* more than 30,000 ways/)
    expect(orderOfPuzzle(stiff).groupOrder).toBeNull()
    const { verdict } = diagnose(stiff, scrambledState(stiff, scramble(stiff, 1)))
    expect(verdict).toBe('not known')
  })

  it('leads glued puzzles home by turns that are free', () => {
    fc.assert(
      fc.property(anyGlued, fc.nat(1000), (puzzle, seed) => {
        expectHome(puzzle, scrambledState(puzzle, scramble(puzzle, seed)))
      }),
      { numRuns: 6 },
    )
  })

  it('has a route in words for every glued puzzle: every place that it names has a name', () => {
    fc.assert(
      fc.property(anyGlued, fc.nat(1000), (puzzle, seed) => {
        const school = pieceByPiece(puzzle)
        if (!school) return
        const state = scrambledState(puzzle, scramble(puzzle, seed))
        const route = must(plan(puzzle, school, state))
        const names = new Set(puzzle.pieces.map(({ id }) => id))
        for (const { places } of stepsOf(route))
          expect(places.every((place) => names.has(place))).toBe(true)
      }),
      { numRuns: 5 },
    )
  })

  it('brings the blocks back first, and says so', () => {
    const school = pieceByPiece(gluedCube)
    expect(school?.stages[0]).toMatchObject({ id: 'shape', name: 'Blocks' })
    const state = must(turnAll(gluedCube, start(gluedCube), must(readTurns(gluedCube, 'U R'))))
    const route = must(plan(gluedCube, school as School, state))
    expect(claimsOf('blocksFirst', route.stages[0].steps[0])).not.toEqual([])
    expect(stagesMet(gluedCube, school as School, { variant: {}, base: 'up' }, state)).toBe(0)
  })

  it('leads home where caps meet in an edge', () => {
    const puzzle = capped('up', 'down', 'left', 'right')
    for (let seed = 1; seed <= 3; seed++) {
      const hold = puzzle.holds[seed % puzzle.holds.length]
      expectHome(puzzle, rotateState(scrambledState(puzzle, scramble(puzzle, seed)), hold))
    }
  })

  it('settles small orbits in groups where they are too many to list at once', () => {
    const puzzle = box(2, 4, 5)
    expectHome(puzzle, scrambledState(puzzle, scramble(puzzle, 3)))
    expect(knownPlanOf(puzzle)?.first.length).toBeGreaterThan(0)
  }, 240_000)

  it('lights odd and even only when they are settled', () => {
    const school = must(schoolNamed('cube-3', 'piece-by-piece'))
    const met = (text: string) =>
      stagesMet(
        cube3,
        school,
        { variant: {}, base: 'up' },
        must(turnAll(cube3, start(cube3), must(readTurns(cube3, text)))),
      )
    expect(met('R')).toBe(0)
    expect(met("R U R' U'")).toBe(1)
    expect(met('')).toBe(school.stages.length)
  })

  it('serves every puzzle of the catalogue', () => {
    expect(served).toEqual([...CATALOG_IDS])
  })

  /** Of the steps of a route that offer something. */
  const STEPS_TRIED = 3

  it('offers other third pieces for a series, and taking one gives what was promised', () => {
    let taken = 0
    for (const id of ['cube-3', 'prism-6', 'box-3x3x5', 'circle-3', 'shift-3x3x5']) {
      const puzzle = must(puzzleById(id))
      const school = must(schoolNamed(id, 'piece-by-piece'))
      const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, 2))))
      const trail = trailOf(puzzle, route)
      const indexOf = (name: string) => puzzle.pieces.findIndex((piece) => piece.id === name)
      const offering = trail.steps.flatMap(({ others }, s) => (others.length > 0 ? [s] : []))
      for (const s of offering.slice(0, STEPS_TRIED))
        for (const offer of [trail.steps[s].others.at(0), trail.steps[s].others.at(-1)]) {
          if (!offer?.first) continue
          taken++
          const from = trail.states[trail.firstOfStep[s]]
          const options = { prefer: indexOf(offer.piece), first: indexOf(offer.first) }
          const other = must(plan(puzzle, school, from, options))
          const step = stepsOf(other).find(({ kind }) => kind === 'cycle')
          if (!step) throw new Error('nothing goes round')
          expect([step.pieces[0], step.pieces[2]]).toEqual([offer.first, offer.piece])
          const made = step.turns.filter(({ role }) => role !== 'hold')
          const undone = made.filter(({ role }) => role === 'setup').length
          const owed = undone - made.filter(({ role }) => role === 'undo').length
          const [{ turns, arrive: promised }] = claimsOf('offeredThird', offer.says)
          expect(turns).toBe(made.length + owed)
          const arriving = step.lines?.filter(({ says }) =>
            says.some((claim) => 'lies' in claim && claim.lies === 'home'),
          )
          // More may look right than are counted, where pieces are equal.
          expect(arriving?.length).toBeGreaterThanOrEqual(promised)
        }
    }
    expect(taken).toBeGreaterThan(14)
  })

  it('counts the turns that it shows, and never saves fewer than none', () => {
    for (const id of ['cube-3', 'prism-6', 'twin-3']) {
      const puzzle = must(puzzleById(id))
      const route = must(
        plan(
          puzzle,
          must(schoolNamed(id, 'piece-by-piece')),
          scrambledState(puzzle, scramble(puzzle, 9)),
        ),
      )
      expect(route.saved).toBeGreaterThanOrEqual(0)
      const made = turnsOfRoute(route).map(({ name }) => puzzle.turnByName.get(name) as never)
      expect(route.turnCount).toBe(countTurns(simplify(puzzle, made)))
    }
  })
})
