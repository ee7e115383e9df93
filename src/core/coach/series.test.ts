import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { inverseOf } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { must } from '../result'
import { SCHOOLS, schoolNamed } from '../schools'
import { layers } from '../schools/layers'
import { edgesFirst } from '../schools/edges-first'
import { taught } from '../schools/taught'
import { sequence } from '../notation/sequence'
import { scramble, scrambledState } from '../scramble/scramble'
import { after } from '../testing'
import { cycleOf, shortCycles } from '../universal/baseCycles'
import { workOf } from '../universal/orbitsAtWork'
import { Setups } from '../universal/setups'
import { plan } from './plan'
import { stepsOf } from './route'
import { owedAt, trailOf } from './standing'
import { claimsOf } from './claimed.testing'

const cube3 = must(puzzleById('cube-3'))
const tilt = must(puzzleById('tilt-3'))
const twin = must(puzzleById('twin-3'))

const orbitOf = (puzzle: Puzzle, id: string): number =>
  workOf(puzzle).orbits.findIndex(({ orbit }) =>
    orbit.places.some((place) => puzzle.pieces[place].id === id),
  )

/** The pieces that are not where and as they were. */
const moved = (puzzle: Puzzle, turns: readonly Turn[]): string[] =>
  [...after(puzzle, turns)].flatMap((r, p) => (r === 0 ? [] : [puzzle.pieces[p].id]))

describe('a sequence as a three-cycle', () => {
  it('of one orbit, where the others may move, and of none where they may not', () => {
    const turns = sequence(tilt, "R U R' U'").turns
    const corners = orbitOf(tilt, 'UFR')
    const cycle = cycleOf(tilt, turns, [corners])
    expect(cycle?.places.map((place) => tilt.pieces[place].id).sort()).toEqual(['FR', 'UB', 'UR'])
    expect(cycleOf(tilt, turns, [])).toBeUndefined()
    expect(cycleOf(tilt, sequence(tilt, 'R U').turns, [corners])).toBeUndefined()
  })

  it('leaves every centre in register that shows a turn', () => {
    const centres = tilt.pieces.flatMap(({ id, kind }) => (/centre/.test(kind) ? [id] : []))
    for (const school of SCHOOLS)
      for (const { technique } of school === edgesFirst ? school.stages : [])
        if (technique.kind === 'series')
          for (const text of technique.sequences ?? []) {
            const touched = moved(tilt, sequence(tilt, text).turns)
            expect(touched.filter((id) => centres.includes(id))).toEqual([])
          }
  })

  it('is found as a commutator of two turns on conjoined cubes, and moves three edges that are seen', () => {
    for (const id of ['1.UF', '2.DF']) {
      const found = shortCycles(twin, orbitOf(twin, id))
      expect(found.length).toBeGreaterThan(1)
      for (const { turns } of found) {
        expect(turns).toHaveLength(4)
        const edges = moved(twin, turns).filter((each) => /\.[UDFBRL]{2}$/.test(each))
        expect(edges).toHaveLength(3)
      }
    }
  })
})

describe('set-ups', () => {
  const edges = orbitOf(cube3, 'UF')
  const base = cycleOf(cube3, sequence(cube3, "R U R' U'").turns, [orbitOf(cube3, 'UFR')])
  if (!base) throw new Error('no cycle')
  const setups = new Setups(cube3, [base], [3], true)
  const places = workOf(cube3).orbits[edges].orbit.places

  it('never begin or end the sequence otherwise than it is known, and stay within their turns', () => {
    fc.assert(
      fc.property(fc.constantFrom(...places), fc.constantFrom(...places), (a, b) => {
        for (let rotation = 0; rotation < 24; rotation++)
          for (const found of setups.taking(a, b, rotation).slice(0, 4)) {
            const { base: done, setup } = setups.cycle(found)
            expect(done.turns.map(({ name }) => name)).toEqual(['R', 'U', "R'", "U'"])
            expect(setup.length).toBeLessThanOrEqual(3)
            const last = setup.at(-1)
            if (last) expect([base.turns[0].grip, base.turns[3].grip]).not.toContain(last.grip)
            const whole = [...setup, ...done.turns, ...inverseOf(cube3, setup)]
            const state = after(cube3, whole)
            expect(cube3.place[24 * a + state[a]]).toBe(b)
            expect(state[a]).toBe(rotation)
          }
      }),
      { numRuns: 20 },
    )
  })
})

describe('a series on the bench', () => {
  it('is set up, done as it is known, and undone in the opposite order', () => {
    const school = must(schoolNamed('tilt-3', 'edges-first'))
    const route = must(plan(tilt, school, scrambledState(tilt, scramble(tilt, 5))))
    const known = edgesFirst.stages.flatMap(({ technique }) =>
      technique.kind === 'series' ? (technique.sequences ?? []) : [],
    )
    const forms = known.flatMap((text) => {
      const { turns } = sequence(tilt, text)
      return [turns, inverseOf(tilt, turns)].map((form) => form.map(({ name }) => name).join(' '))
    })
    const series = stepsOf(route).filter(({ kind }) => kind === 'series')
    expect(series.length).toBeGreaterThan(4)
    for (const { turns, algorithm } of series) {
      expect(forms).toContain(algorithm.join(' '))
      const inRole = (role: string) =>
        turns
          .filter((turn) => turn.role === role)
          .flatMap(({ name }) => tilt.turnByName.get(name) ?? [])
      expect(inRole('undo')).toEqual(inverseOf(tilt, inRole('setup')))
    }
    const trail = trailOf(tilt, route)
    trail.firstOfStep.forEach((at) => expect(owedAt(tilt, trail, at)).toEqual([]))
  })
})

describe('a school as it is taught', () => {
  const ids = (puzzle: Puzzle, school = layers) => taught(puzzle, school).stages.map(({ id }) => id)

  it('asks for centres where they tell, and for none where they do not', () => {
    expect(ids(cube3)).not.toContain('centres')
    expect(ids(cube3)).toContain('cross')
    expect(ids(tilt).slice(0, 2)).toEqual(['centres', 'cross-safe'])
    expect(taught(tilt, taught(tilt, layers))).toBe(taught(tilt, layers))
  })
})

describe('foresight', () => {
  it('offers every other third piece of a series, and taking one gives what was promised', () => {
    let taken = 0
    for (const [puzzle, id] of [
      [cube3, 'edges-first'],
      [tilt, 'edges-first'],
      [twin, 'half-by-half'],
    ] as const) {
      const school = must(schoolNamed(puzzle.definition.id, id))
      const indexOf = (name: string) => puzzle.pieces.findIndex((piece) => piece.id === name)
      for (const seed of [3, 4]) {
        const route = must(plan(puzzle, school, scrambledState(puzzle, scramble(puzzle, seed))))
        const trail = trailOf(puzzle, route)
        const offering = trail.steps.flatMap(({ kind, others }, s) =>
          kind === 'series' && others.length > 0 ? [s] : [],
        )
        for (const s of offering.slice(0, 3))
          for (const offer of [trail.steps[s].others.at(0), trail.steps[s].others.at(-1)]) {
            if (!offer?.first) throw new Error('no first piece is named')
            const other = must(
              plan(puzzle, school, trail.states[trail.firstOfStep[s]], {
                base: directionOfName(route.base),
                prefer: indexOf(offer.piece),
                first: indexOf(offer.first),
              }),
            )
            const step = stepsOf(other).find(({ kind }) => kind === 'series')
            if (!step) throw new Error('nothing goes round')
            const arriving = (step.lines ?? []).filter(({ says }) =>
              says.some((claim) => 'lies' in claim && claim.lies === 'home'),
            )
            const [{ arrive: promised }] = claimsOf('offeredThird', offer.says)
            expect(promised).toBeGreaterThan(0)
            // More may look right than are counted, where pieces are equal.
            expect(arriving.length).toBeGreaterThanOrEqual(promised)
            taken++
          }
      }
    }
    expect(taken).toBeGreaterThan(12)
  })
})
