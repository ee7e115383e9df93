import { describe, expect, it } from 'vitest'
import { readTurns } from '../notation/read'
import { holdAfter } from '../notation/rewrite'
import { DIRECTIONS, directionOfLetter } from '../puzzle/directions'
import { must } from '../result'
import { rotate } from '../rotation'
import { SCHOOLS } from '../schools'
import derivedFile from '../schools/derived/cube-2.json'
import { stagesOf, variantsOf, type School } from '../schools/school'
import { inverseOf, rotateState, start, readState } from '../state'
import { after, cube2 } from '../testing'
import { recognise, statesMeeting } from './cases'
import { deriveAll } from './derive'
import { galleryOf } from './gallery'
import { frameMeeting } from './goal'
import { isLayerCycle } from './techniques/count'
import { rewriteTrigger } from './techniques/twist'
import { placeNamed } from './workpiece'

const named = (id: string) => SCHOOLS.find((school) => school.id === id) as School
const turns = (text: string) => must(readTurns(cube2, text))
const down = directionOfLetter('D')

describe('what is kept with the program', () => {
  it('is what the program derives from the stages', () => {
    expect(deriveAll(cube2)).toEqual(derivedFile)
  })

  it('covers every state of its stage: the counts add up', () => {
    for (const school of ['layer-by-layer', 'face-first'].map(named)) {
      const stages = stagesOf(school, {})
      stages.forEach((stage, i) => {
        if (stage.technique.kind !== 'case') return
        const all = statesMeeting(cube2, stages[i - 1].goal, down)
        const trivial = all.filter(
          (state) => recognise(cube2, stage, down, state, ['']) !== undefined,
        )
        const kept = derivedFile[`${school.id}/${stage.id}` as keyof typeof derivedFile]
        if (!('cases' in kept)) throw new Error('no cases are kept')
        const sum = kept.cases.reduce((total, { states }) => total + states, 0)
        expect(sum + trivial.length).toBe(all.length)
      })
    }
  })
})

describe('cases', () => {
  it.each([
    ['layer-by-layer', 'orient'],
    ['layer-by-layer', 'permute'],
    ['face-first', 'orient'],
    ['face-first', 'permute'],
  ])('of %s/%s look different from each other and are told apart', (id, stageId) => {
    for (const base of DIRECTIONS.slice(0, 2)) {
      const gallery = galleryOf(cube2, named(id), {}, stageId, base)
      const stage = stagesOf(named(id), {}).find((each) => each.id === stageId)
      if (!stage) throw new Error(stageId)
      expect(new Set(gallery.map(({ looks }) => JSON.stringify(looks))).size).toBe(gallery.length)
      gallery.forEach(({ state, algorithm, index, mistaken }) => {
        const shown = must(readState(cube2, state))
        const done = after(cube2, turns(algorithm.join(' ')), shown)
        expect(frameMeeting(cube2, stage.goal, base, done)).not.toBeUndefined()
        const found = recognise(
          cube2,
          stage,
          base,
          shown,
          gallery.map((each) => each.algorithm.join(' ')),
        )
        expect(found?.index).toBe(index)
        expect(mistaken.length).toBe(stageId === 'orient' ? 1 : 0)
      })
    }
  })

  it.each([
    // Sequences that solvers know, for the hold given by the directions of the last colour.
    "R2 U2 R' U2 R2",
    "F R U R' U' F'",
    "R U R' U R U2 R'",
    "R U2 R' U' R U' R'",
    "R U R' U' R' F R F'",
  ])('know a sequence of other origin as one of theirs: %s', (text) => {
    const stage = stagesOf(named('face-first'), {})[1]
    const kept = derivedFile['face-first/orient'].cases.map((each) => each.turns)
    const held = rotateState(start(cube2), 0)
    const state = after(cube2, inverseOf(cube2, turns(text)), held)
    const before = stagesOf(named('face-first'), {})[0].goal
    expect(frameMeeting(cube2, before, down, state)).not.toBeUndefined()
    expect(recognise(cube2, stage, down, state, ['', ...kept])?.index).toBeGreaterThan(0)
  })
})

describe('counting', () => {
  const stage = stagesOf(named('one-trigger'), {})[1]
  const all = statesMeeting(cube2, [{ layer: 'base', must: 'home' }], down)
  const last = cube2.pieces.flatMap(({ id }, p) => (id.startsWith('U') ? [p] : []))
  const countsOf = (state: Uint8Array) =>
    ['', 'U', 'U2', "U'"].map((text) => {
      const turned = after(cube2, turns(text), state)
      return last.filter((p) => cube2.place[24 * p + turned[p]] === p).length
    })

  it('shows never three, and the known patterns as often as they occur', () => {
    // Twist does not matter, so arrangements are counted.
    const patterns = new Map<string, number>()
    const arrangements = new Map(
      all.map((state) => [last.map((p) => cube2.place[24 * p + state[p]]).join(), state]),
    )
    for (const state of arrangements.values()) {
      const counts = countsOf(state)
      expect(counts).not.toContain(3)
      const pattern = [...counts].sort((a, b) => b - a).join()
      patterns.set(pattern, (patterns.get(pattern) ?? 0) + 1)
    }
    expect(Object.fromEntries(patterns)).toEqual({ '4,0,0,0': 4, '2,1,1,0': 16, '2,2,0,0': 4 })
  })

  it('uses cycles that leave the held corner and the first layer, typed in or found', () => {
    for (const variant of variantsOf(named('one-trigger'))) {
      const [, place] = stagesOf(named('one-trigger'), variant)
      if (place.technique.kind !== 'count') throw new Error(place.id)
      const text = place.technique.cycle ?? derivedFile['one-trigger/place'].cycle
      const cycle = turns(text)
      const state = after(cube2, cycle)
      const frame = holdAfter(cycle)
      expect(isLayerCycle({ puzzle: cube2, stage }, { state, frame }, 'UFR')).toBe(true)
    }
  })
})

describe('the twisting trigger', () => {
  it.each(DIRECTIONS.map(({ letter }) => letter))(
    'rewritten for the last layer at %s moves one place of it, and is back after six',
    (letter) => {
      const side = directionOfLetter(letter)
      const { trigger, spot } = rewriteTrigger(cube2, "R' D' R D", 'UFR', side)
      const state = after(cube2, trigger)
      const moved = cube2.pieces.flatMap((piece, p) =>
        state[p] !== 0 && piece.id.includes(letter) ? [p] : [],
      )
      expect(moved).toEqual([spot])
      const six = Array.from({ length: 6 }, () => trigger).flat()
      expect(after(cube2, six)).toEqual(start(cube2))
      expect(trigger).toHaveLength(4)
    },
  )

  it('needs six runs for 16 twist patterns of the last layer and twelve for 10', () => {
    const stage = stagesOf(named('one-trigger'), {})[2]
    const placed = statesMeeting(
      cube2,
      [
        { layer: 'base', must: 'home' },
        { layer: 'last', must: 'placed' },
      ],
      down,
    ).filter((state) => frameMeeting(cube2, stage.goal, down, state) === undefined)
    expect(placed).toHaveLength(26)
    const spot = placeNamed(cube2, 'UFR')
    const trigger = turns("R' D' R D")
    const runs = placed.map((from) => {
      let state = from
      let count = 0
      for (let quarter = 0; quarter < 4; quarter++) {
        const piece = state.findIndex((r, p) => cube2.place[24 * p + r] === spot)
        const looksUp = () => rotate(state[piece], [0, 1, 0])[1] === 1
        while (!looksUp()) {
          state = after(cube2, trigger, state)
          count++
        }
        state = after(cube2, turns('U'), state)
      }
      return count
    })
    expect(runs.filter((n) => n === 6)).toHaveLength(16)
    expect(runs.filter((n) => n === 12)).toHaveLength(10)
  })
})
