import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { layersOf, slabsOf } from '../analysis/layers'
import { joinedAs, joinedState } from '../analysis/joined'
import { straysUnder, withinReach } from '../analysis/placements'
import { puzzleById } from '../catalog'
import { doSequence, sequence } from '../notation/sequence'
import { compile, type Puzzle } from '../puzzle/compile'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { IDENTITY, INVERSE } from '../rotation'
import { schoolAmong, schoolsOf } from '../schools'
import { beltBarsBoxes } from '../schools/belt-bars-boxes'
import { reduction } from '../schools/reduction'
import { stagesOf, type School } from '../schools/school'
import { isSolved, looksHome, rotateState, start, turnFreely } from '../state'
import { box, drawn } from '../testing'
import { plan } from './plan'
import { stepsOf, type Route } from './route'
import { trailOf } from './standing'
import { sequencesOf } from './technique'
import { faultsOf } from './truth.testing'
import { statesAfterStages } from './verify'
import { claimsOf, Lies } from './claimed.testing'

const cube4 = must(puzzleById('cube-4'))
const bipyramid = must(puzzleById('bipyramid-6'))

/** A 4x4x4 between three pairs of parallel planes. */
function between(
  planes: readonly (readonly [normal: readonly number[], at: number])[],
  colours: readonly string[],
): Puzzle {
  const halfSpaces = planes.flatMap(([normal, at], i) => [
    { normal, at, colour: colours[2 * i] },
    { normal: normal.map((c) => -c + 0), at, colour: colours[2 * i + 1] },
  ])
  return compile(
    must(
      readDefinition({
        schema: 1,
        id: 'between',
        name: 'between',
        mechanism: { kind: 'box', size: [4, 4, 4] },
        solid: { halfSpaces },
      }),
    ),
  )
}

const SIX = ['white', 'yellow', 'red', 'orange', 'blue', 'green']

/** A leaning block; with colours that several faces have, equal pieces everywhere. */
const leaning = (colours: readonly string[]): Puzzle =>
  between(
    [
      [[-1, 2, 2], 6],
      [[2, 2, -1], 6],
      [[2, -1, 2], 6],
    ],
    colours,
  )

/** Some of its centres look alike on different sides, which hides an exchange of two. */
const hiding = between(
  [
    [[1, 0, 0], 4],
    [[1, 1, -1], 6],
    [[1, 0, 1], 3.25],
  ],
  SIX,
)

const schoolOf = (puzzle: Puzzle) => {
  const school = schoolsOf(puzzle).find(({ id }) => id === reduction.id)
  if (!school) throw new Error('no reduction')
  return school
}

const routeFrom = (puzzle: Puzzle, seed: number): Route =>
  must(plan(puzzle, schoolOf(puzzle), drawn(puzzle, seed)))

describe('a box as a smaller one', () => {
  const AS: readonly (readonly [Puzzle, readonly [number, number, number]])[] = [
    [cube4, [3, 3, 3]],
    [bipyramid, [3, 3, 3]],
    [box(5, 5, 5), [3, 3, 3]],
    [box(4, 5, 4), [3, 5, 3]],
    [box(4, 5, 4), [3, 3, 3]],
  ]
  const sizes = fc.nat({ max: AS.length - 1 })

  it('goes with the real one turn by turn, every kept piece alike', () => {
    fc.assert(
      fc.property(sizes, fc.array(fc.nat(), { maxLength: 25 }), (nth, picks) => {
        const [puzzle, size] = AS[nth]
        const joined = joinedAs(puzzle, size)
        if (!joined) throw new Error('not joined')
        const { small, partsOf, turnFor } = joined
        let [real, own] = [start(puzzle), start(small)]
        for (const pick of picks) {
          const turn = small.turns[pick % small.turns.length]
          own = turnFreely(small, own, turn, new Uint8Array(own.length))
          real = turnFreely(puzzle, real, turnFor(turn), new Uint8Array(real.length))
          partsOf.forEach((parts, whole) => parts.forEach((p) => expect(real[p]).toBe(own[whole])))
        }
        const read = joinedState(puzzle, joined, real)
        if (!read) throw new Error('it is joined')
        // What is not seen may be read otherwise.
        read.forEach((r, w) => expect(small.look[24 * w + r]).toBe(small.look[24 * w + own[w]]))
        if (isSolved(small, own)) expect(isSolved(puzzle, real)).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  it('has every piece in one whole, and is there no longer once a slice has turned', () => {
    fc.assert(
      fc.property(sizes, (nth) => {
        const [puzzle, size] = AS[nth]
        const joined = joinedAs(puzzle, size)
        if (!joined) throw new Error('not joined')
        const parts = joined.partsOf.flat().sort((a, b) => a - b)
        expect(parts).toEqual([...puzzle.pieces.keys()])
        const isPart = new Set(joined.small.turns.map((turn) => joined.turnFor(turn).grip))
        const inner = layersOf(puzzle).filter((grip) => !isPart.has(grip))
        for (const turn of puzzle.turns.filter(({ grip }) => inner.includes(grip)))
          expect(
            joinedState(puzzle, joined, turnFreely(puzzle, start(puzzle), turn, start(puzzle))),
            turn.name,
          ).toBeUndefined()
      }),
      { numRuns: 10 },
    )
  })

  it('is none where an even number of layers would be left, or where cells are glued', () => {
    expect(joinedAs(box(5, 5, 5), [2, 3, 3])).toBeUndefined()
    expect(joinedAs(must(puzzleById('twin-3')), [3, 3, 3])).toBeUndefined()
  })
})

describe('reduction', () => {
  it('is offered to everything over four layers each way, and to nothing else', () => {
    const offered = (puzzle: Puzzle) => schoolsOf(puzzle).some(({ id }) => id === reduction.id)
    for (const puzzle of [cube4, bipyramid, leaning(SIX)]) expect(offered(puzzle)).toBe(true)
    for (const puzzle of [box(4, 5, 4), box(3, 3, 3), box(5, 5, 5)])
      expect(offered(puzzle)).toBe(false)
  })

  const puzzles: readonly [string, Puzzle, number][] = [
    ['a cube', cube4, 4],
    ['a solid in which every centre has its own place', bipyramid, 3],
    ['a leaning block', leaning(SIX), 2],
    ['the same with equal pieces', leaning(['white', 'white', 'red', 'red', 'blue', 'blue']), 2],
  ]

  it.each(puzzles)(
    'leads %s home, every goal in order, every sentence true',
    (_, puzzle, count) => {
      const named = new Set(slabsOf(puzzle))
      for (let seed = 1; seed <= count; seed++) {
        const route = routeFrom(puzzle, 7 * seed)
        const { states, tape } = trailOf(puzzle, route)
        expect(isSolved(puzzle, states[tape.length])).toBe(true)
        const ends = statesAfterStages(puzzle, schoolOf(puzzle), route)
        expect(ends.filter(({ met }) => !met)).toEqual([])
        expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
        for (const { name } of tape) {
          const turn = puzzle.turnByName.get(name)
          if (turn && !turn.whole) expect(named.has(turn.grip), name).toBe(true)
        }
      }
    },
  )

  it('goes on piece by piece, and says why, where equal centres hide an exchange', () => {
    const routes = [7, 14, 21, 35].map((seed) => {
      const route = routeFrom(hiding, seed)
      const { states, tape } = trailOf(hiding, route)
      expect(isSolved(hiding, states[tape.length])).toBe(true)
      expect(faultsOf(hiding, hiding.definition.colours, route)).toEqual([])
      const ends = statesAfterStages(hiding, schoolOf(hiding), route)
      expect(ends.filter(({ met }) => !met)).toEqual([])
      return stepsOf(route).flatMap((step) => claimsOf('noWayOn', step)).length
    })
    // Said once where it is so, and it is not always so.
    expect(new Set(routes)).toEqual(new Set([0, 1]))
  })

  it('asks for sequences that are turns of the real puzzle and leave joined what is played', () => {
    for (const [puzzle, id, size] of [
      [cube4, reduction.id, [3, 3, 3]],
      [box(4, 5, 4), beltBarsBoxes.id, [3, 5, 3]],
    ] as const) {
      const school = must(schoolAmong(schoolsOf(puzzle), id))
      const joined = joinedAs(puzzle, size)
      if (!joined) throw new Error('not joined')
      const stages = stagesOf(school, {})
      const known = stages.flatMap((stage, s) =>
        stage.technique.kind === 'as'
          ? sequencesOf(puzzle, school, stage, stages[s - 1]?.goal ?? [])
          : [],
      )
      expect(known.length).toBeGreaterThan(4)
      for (const text of known)
        expect(
          joinedState(puzzle, joined, doSequence(sequence(puzzle, text), start(puzzle))),
          text,
        ).toBeDefined()
    }
  })

  it('tells falsehoods apart: a count, a place, a side', () => {
    const lies = new Lies()
    expect(lies.unfoundIn(cube4, routeFrom(cube4, 3))).toEqual([])
    for (const kind of ['partsIn', 'together', 'partsMissing', 'pairsLeft'] as const)
      expect(lies.count(kind), kind).toBeGreaterThan(0)
  })

  it('mends a flipped pair and two exchanged ones, each at most once, by what moves nothing else that is seen', () => {
    const counts = new Map<string, number>()
    for (let seed = 1; seed <= 8; seed++) {
      const own = routeFrom(cube4, 100 + seed)
        .stages.flatMap(({ steps }) => [...steps])
        .filter(({ kind }) => kind === 'remedy')
        .map(({ algorithm }) => algorithm.join(' '))
      expect(new Set(own).size).toBe(own.length)
      for (const each of own) counts.set(each, (counts.get(each) ?? 0) + 1)
    }
    // Each of the two is half of the time there.
    expect(counts.size).toBe(2)
    const remedies = stagesOf(schoolOf(cube4), {}).flatMap(({ technique }) =>
      technique.kind === 'remedy' ? [...technique.sequences] : [],
    )
    const moved = remedies.map((text) => {
      const { table } = sequence(cube4, text)
      return cube4.pieces.flatMap(({ kind }, p) =>
        looksHome(cube4, p, table[24 * p]) ? [] : [kind],
      )
    })
    expect(moved.map((kinds) => kinds.length)).toEqual([2, 4])
    expect(new Set(moved.flat())).toEqual(new Set(['edge']))
  })

  it('takes three centres round and moves nothing else, where each has its own place', () => {
    const exact = schoolOf(bipyramid).stages[0].technique
    if (exact.kind !== 'join') throw new Error('no join')
    const sizes = exact.sequences.map(
      (text) =>
        bipyramid.pieces.filter((_, p) => sequence(bipyramid, text).table[24 * p] !== IDENTITY)
          .length,
    )
    expect(sizes.slice(-3)).toEqual([3, 3, 3])
  })
})

describe('belt, bars, boxes', () => {
  const written = (puzzle: Puzzle) =>
    schoolsOf(puzzle).find(({ id }) => id === beltBarsBoxes.id) as School

  it.each<[[number, number, number]]>([[[4, 5, 4]], [[4, 4, 5]], [[5, 4, 4]]])(
    'leads a box of %s home whichever way it stands, through parity too, every sentence true',
    (size) => {
      const puzzle = box(...size)
      const school = written(puzzle)
      let mended = 0
      for (let seed = 1; seed <= 4; seed++) {
        const route = must(plan(puzzle, school, drawn(puzzle, 11 * seed)))
        const { states, tape, steps } = trailOf(puzzle, route)
        expect(isSolved(puzzle, states[tape.length])).toBe(true)
        const missed = statesAfterStages(puzzle, school, route).filter(({ met }) => !met)
        expect(missed).toEqual([])
        expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
        mended += steps.filter(({ kind }) => kind === 'remedy').length
      }
      expect(mended).toBeGreaterThan(0)
    },
    60_000,
  )

  it.each<[[number, number, number], number]>([
    [[4, 4, 2], 5],
    [[4, 3, 4], 5],
    // The lower edges of the innermost box are home a quarter turn further: the sides are meant so.
    [[4, 6, 4], 317],
    [[6, 4, 4], 3],
    [[4, 7, 4], 3],
  ])('is taught on a box of %s, with a belt and without', (size, seed) => {
    const puzzle = box(...size)
    const school = written(puzzle)
    const hasBelt = size.some((n) => n % 2 === 1)
    const isOfBelt = /belt|exchanged/
    expect(school.stages.some(({ id }) => isOfBelt.test(id))).toBe(hasBelt)
    for (const nth of [0, 1]) {
      const route = must(plan(puzzle, school, drawn(puzzle, seed + nth)))
      expect(statesAfterStages(puzzle, school, route).filter(({ met }) => !met)).toEqual([])
      expect(faultsOf(puzzle, puzzle.definition.colours, route)).toEqual([])
      expect(stepsOf(route).flatMap((step) => claimsOf('noWayOn', step))).toEqual([])
    }
  })

  it('exchanges two pairs of an end, and nothing else that is seen', () => {
    const puzzle = box(4, 5, 4)
    const remedy = stagesOf(written(puzzle), {}).find(
      ({ technique }) => technique.kind === 'remedy',
    )
    if (remedy?.technique.kind !== 'remedy') throw new Error('no remedy')
    const { table } = sequence(puzzle, remedy.technique.sequences[0])
    const joined = joinedAs(puzzle, [3, 5, 3])
    if (!joined) throw new Error('not joined')
    const seen = puzzle.pieces.flatMap((_, p) => (looksHome(puzzle, p, table[24 * p]) ? [] : [p]))
    const filled = new Set(seen.map((p) => joined.small.pieces[joined.wholeOf[p]].id))
    // What lies on the sides looks the same wherever it lies above the others.
    expect([...filled].filter((id) => id.length === 2).sort()).toEqual(['UB', 'UF'])
  })

  it('means the sides so that turns of the smaller box can give every piece its place', () => {
    const puzzle = box(4, 5, 4)
    const school = written(puzzle)
    for (let seed = 1; seed <= 4; seed++) {
      const route = must(plan(puzzle, school, drawn(puzzle, 300 + seed)))
      const { states, frames, firstOfStep, steps } = trailOf(puzzle, route)
      const joined = joinedAs(puzzle, [3, 5, 3])
      if (!joined) throw new Error('not joined')
      steps.forEach((step, s) => {
        if (!step.as) return
        const at = firstOfStep[s]
        const read = joinedState(puzzle, joined, states[at])
        if (!read) throw new Error('what is played is joined')
        const held = rotateState(read, INVERSE[frames[at]])
        expect(straysUnder(joined.small, withinReach(joined.small, held), IDENTITY)).toEqual([])
      })
    }
  })
})
