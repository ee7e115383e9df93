import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { puzzleById } from '../catalog'
import { compile } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { readDefinition } from '../puzzle/readDefinition'
import { must } from '../result'
import { schoolNamed, schoolsOf, SCHOOLS } from '../schools'
import tetraCases from '../schools/derived/tetra-3.json'
import type { School } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { sequence } from '../notation/sequence'
import { rotateState, start, turnFreely, type State } from '../state'
import { deriveAll } from './derive'
import { frameMeeting } from './goal'
import { plan, rankStarts } from './plan'
import { stepsOf, type RouteStep } from './route'
import { trailOf } from './standing'
import { faultsOf } from './truth.testing'
import { statesAfterStages } from './verify'
import { held, layerTurns } from './workpiece'
import { claimsOf } from './claimed.testing'

const tetra3 = must(puzzleById('tetra-3'))
const cube3 = must(puzzleById('cube-3'))
const WRITTEN = [
  { puzzle: tetra3, id: 'face-then-three' },
  { puzzle: cube3, id: 'layers' },
]
const schoolOf = (puzzle: typeof tetra3, id: string): School =>
  must(schoolNamed(puzzle.definition.id, id))

const stateFrom = (puzzle: typeof tetra3, seed: number): State =>
  rotateState(
    scrambledState(puzzle, scramble(puzzle, seed)),
    puzzle.holds[seed % puzzle.holds.length],
  )

const made = (puzzle: typeof tetra3, steps: readonly RouteStep[]) =>
  steps
    .flatMap(({ turns }) => turns)
    .filter(({ name }) => puzzle.turnByName.get(name)?.whole === false).length

describe.each(WRITTEN)('the school $id', ({ puzzle, id }) => {
  const school = schoolOf(puzzle, id)

  it('leads home from anywhere, meets each goal in order, and says nothing false', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const route = must(plan(puzzle, school, stateFrom(puzzle, seed)))
        for (const { stage, met } of statesAfterStages(puzzle, school, route))
          expect(met, `${seed}: ${stage}`).toBe(true)
        const faults = faultsOf(puzzle, puzzle.definition.colours, route)
        expect(faults.map(({ step, what }) => `${step}: ${what}`)).toEqual([])
      }),
      { numRuns: id === 'layers' ? 25 : 60 },
    )
  })

  it('can begin with every colour, and ranks them by their turns', () => {
    const from = stateFrom(puzzle, 8)
    const ranked = rankStarts(puzzle, school, from)
    expect(ranked.map(({ base }) => base.name)).toHaveLength(id === 'layers' ? 6 : 4)
    expect(new Set(ranked.map(({ colour }) => colour)).size).toBe(ranked.length)
    for (const { base, turns, stagesDone } of ranked) {
      const route = must(plan(puzzle, school, from, { base: directionOfName(base.name) }))
      expect([route.base, route.turnCount]).toEqual([base.name, turns])
      expect(stagesDone).toBe(0)
    }
  })

  it('takes another piece first when asked, with the turns that were promised', () => {
    let taken = 0
    for (let seed = 1; seed < 12; seed++) {
      const route = must(plan(puzzle, school, stateFrom(puzzle, seed)))
      const trail = trailOf(puzzle, route)
      trail.steps.forEach((step, s) => {
        const [offer] = step.others
        const isFirst = trail.stageOfStep[s] !== trail.stageOfStep[s - 1]
        if (!offer || !isFirst || step.kind !== 'bring') return
        const prefer = puzzle.pieces.findIndex(({ id: name }) => name === offer.piece)
        const from = trail.states[trail.firstOfStep[s]]
        const base = directionOfName(route.base)
        const other = must(plan(puzzle, school, from, { prefer, base }))
        const [first] = stepsOf(other)
        expect(first.pieces).toEqual([offer.piece])
        expect(claimsOf('offered', offer.says)[0].turns).toBe(made(puzzle, [first]))
        taken++
      })
    }
    expect(taken).toBeGreaterThan(2)
  })

  it('has nothing to do when it is done, and goes on in the middle', () => {
    expect(stepsOf(must(plan(puzzle, school, start(puzzle))))).toEqual([])
    const route = must(plan(puzzle, school, stateFrom(puzzle, 5)))
    const ends = statesAfterStages(puzzle, school, route)
    ends.slice(0, -1).forEach(({ state }, s) => {
      const rest = must(plan(puzzle, school, state, { base: directionOfName(route.base) }))
      expect(rest.stages.slice(0, s + 1).every(({ done }) => done)).toBe(true)
    })
  })
})

describe('face, then the last three', () => {
  const school = schoolOf(tetra3, 'face-then-three')

  it('takes at most four turns for tips and three for centres', () => {
    let turns = 0
    const routes = Array.from({ length: 60 }, (_, i) =>
      must(plan(tetra3, school, stateFrom(tetra3, i + 1))),
    )
    for (const { stages, turnCount } of routes) {
      turns += turnCount
      expect(made(tetra3, stages[0].steps)).toBeLessThanOrEqual(4)
      expect(made(tetra3, stages[1].steps)).toBeLessThanOrEqual(3)
      expect(stages[3].steps.length).toBeLessThanOrEqual(1)
    }
    expect(turns / routes.length).toBeLessThan(28)
  })

  it('finds its five cases again, over every arrangement that is left', () => {
    expect(deriveAll(tetra3)).toEqual(tetraCases)
    const { cases } = tetraCases['face-then-three/last']
    expect(cases).toHaveLength(5)
    // Two flipped in three ways, a cycle either way, a cycle with two flips in six; each at three turns of the
    // top, but for what that turn alone would do.
    const served = cases.reduce((sum, { states }) => sum + states, 0)
    expect(served).toBe(11 * 3)
  })

  it('names the vertex that lacks the colour', () => {
    const route = must(plan(tetra3, school, stateFrom(tetra3, 3)))
    const first = route.stages.flatMap(({ steps }) => steps)[0]
    const [{ piece, colour }] = claimsOf('lacks', first.note)
    expect(colour).toBe(tetra3.definition.faces[directionOfName(route.base).name])
    const lacking = tetra3.pieces.find(({ id }) => id === piece)
    expect(lacking?.kind).toBe('axial centre')
    expect(lacking?.faces.some((face) => face.colour === colour)).toBe(false)
  })
})

describe('layers', () => {
  it('needs at most fourteen sequences by heart, each of which keeps what was done before', () => {
    const school = schoolOf(cube3, 'layers')
    const known = new Set<string>()
    school.stages.forEach(({ technique, base }, s) => {
      if (technique.kind !== 'insert' && technique.kind !== 'known') return
      const goal = school.stages[s - 1].goal
      const { base: side } = held({ base } as never)
      for (const text of technique.sequences ?? []) {
        known.add(text)
        let state = start(cube3)
        for (const turn of sequence(cube3, text).turns)
          state = turnFreely(cube3, state, turn, new Uint8Array(state.length))
        // An insertion takes one piece out of the layer that it fills; all else it keeps.
        if (technique.kind === 'insert' && technique.select.layers?.includes('base')) continue
        const keeps = layerTurns(cube3, 'U').some(
          ({ table }) => frameMeeting(cube3, goal, side, state, table) !== undefined,
        )
        expect(keeps, text).toBe(true)
      }
    })
    expect(known.size).toBeGreaterThan(5)
    expect(known.size + 1).toBeLessThanOrEqual(14)
  })
})

describe('a school is offered by what a puzzle is', () => {
  const dropped = (more: object) =>
    compile(
      must(
        readDefinition({
          schema: 1,
          id: 'dropped',
          name: 'Dropped',
          mechanism: { kind: 'box', size: [3, 3, 3] },
          ...more,
        }),
      ),
    )
  const names = (puzzle: typeof tetra3) => schoolsOf(puzzle).map(({ id }) => id)

  it('whatever it is called and whatever solid is over it, and to none with blocks', () => {
    expect(names(dropped({}))).toEqual(['layers', 'edges-first', 'piece-by-piece'])
    expect(names(dropped({ mechanism: { kind: 'tetrahedron' } }))[0]).toBe('face-then-three')
    expect(names(dropped({ mechanism: { kind: 'box', size: [2, 2, 2] } }))).toEqual(
      expect.arrayContaining(['one-trigger', 'layer-by-layer', 'face-first']),
    )
    const glue = [
      [
        [1, 1, 1],
        [1, 1, 0],
      ],
    ]
    expect(names(dropped({ glue }))).not.toContain('layers')
    expect(names(must(puzzleById('tilt-3')))[0]).toBe('layers')
  })

  it('and leads a dropped one home with no table of its own', () => {
    const puzzle = dropped({ mechanism: { kind: 'tetrahedron' } })
    const school = SCHOOLS.find(({ id }) => id === 'face-then-three')
    if (!school) throw new Error('there is no such school')
    expect(must(plan(puzzle, school, stateFrom(puzzle, 4))).turnCount).toBeGreaterThan(5)
  })
})
