import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { IN } from '../puzzle/compile'
import { must } from '../result'
import { IDENTITY, INVERSE, multiply } from '../rotation'
import { schoolNamed, SCHOOLS } from '../schools'
import { UNIVERSAL_ID } from '../schools/piece-by-piece'
import { variantsOf } from '../schools/school'
import { scramble, scrambledState } from '../scramble/scramble'
import { looksHome, rotateState, turnFreely, type State } from '../state'
import { cube2 } from '../testing'
import { workOf } from '../universal/orbitsAtWork'
import { inWords } from '../words'
import { plan } from './plan'
import type { Route, RouteStep } from './route'
import { trailOf } from './standing'

/** Words that have stood on cards and say nothing, or say it wrongly. */
const NEVER =
  /\b(\w+) \1\b|undefined|NaN|\[object|no would|One of the \d+ \w+ are|of its own, without|Whether|built on to|\bsits\b|  |\.\.|, \.|this orbit/

/** What stands on a card, in sentences. */
const wordsOf = ({ lookFor, hold, check, note, hints }: RouteStep): string[] =>
  [lookFor, hold, check, note ?? '', hints.nudge, hints.pointer].filter(Boolean)

function expectClean(route: Route): void {
  for (const stage of route.stages)
    for (const step of stage.steps)
      for (const words of wordsOf(step)) expect(words).not.toMatch(NEVER)
}

/** The states at a step: after its hold turns, and after its last turn. */
function statesAt(trail: ReturnType<typeof trailOf>, s: number) {
  const first = trail.firstOfStep[s]
  const held = trail.steps[s].turns.findIndex(({ role }) => role !== 'hold')
  return {
    held: trail.states[first + Math.max(0, held)],
    end: trail.states[trail.firstOfStep[s + 1]],
  }
}

describe('a card of piece by piece', () => {
  it.each(CATALOG_IDS)('lights what lies where it says, and counts what is home: %s', (id) => {
    const puzzle = must(puzzleById(id))
    const school = must(schoolNamed(id, UNIVERSAL_ID))
    const indexOf = (name: string) => puzzle.pieces.findIndex((piece) => piece.id === name)
    let cycles = 0
    for (const seed of [5, 6]) {
      const scrambled = scrambledState(puzzle, scramble(puzzle, seed))
      const from = rotateState(scrambled, puzzle.holds[(5 * seed) % puzzle.holds.length])
      const route = must(plan(puzzle, school, from))
      expectClean(route)
      const trail = trailOf(puzzle, route)
      trail.steps.forEach((step, s) => {
        if (step.kind !== 'cycle') return
        cycles++
        const { held, end } = statesAt(trail, s)
        const frame = trail.frames[trail.firstOfStep[s + 1]]
        step.pieces.forEach((piece, i) => {
          const lit = indexOf(piece)
          const slot = puzzle.slot[24 * indexOf(step.places[i]) + frame]
          expect(puzzle.slot[24 * lit + held[lit]], `${id} ${step.id} ${piece}`).toBe(slot)
        })
        if (step.check.startsWith('once')) return
        const orbit = workOf(puzzle).orbits.find(({ orbit: { places } }) =>
          places.includes(indexOf(step.places[0])),
        )
        const places = orbit?.orbit.places ?? []
        const home = homeIn(puzzle, end, frame, places)
        const told =
          home === places.length
            ? `all ${home} `
            : home === 0
              ? `none of the ${places.length} `
              : `${inWords(home)} of the ${places.length} `
        expect(step.check.startsWith(told), `${step.check} but ${home}`).toBe(true)
      })
    }
    if (id !== 'cube-2' && id !== 'tetra-3') expect(cycles).toBeGreaterThan(3)
  })
})

/** How many places of the finished puzzle show what they should. */
function homeIn(
  puzzle: Parameters<typeof looksHome>[0],
  state: State,
  frame: number,
  places: readonly number[],
): number {
  const at = (place: number) =>
    state.findIndex((r, p) => puzzle.slot[24 * p + r] === puzzle.slot[24 * place + frame])
  return places.filter((place) => {
    const piece = at(place)
    return looksHome(puzzle, piece, multiply(INVERSE[frame], state[piece]))
  }).length
}

describe('a card of the schools of the 2x2x2', () => {
  it('is clean, and foretells the run with which the first layer is whole again', () => {
    let foretold = 0
    for (const school of SCHOOLS)
      for (const variant of variantsOf(school))
        for (const seed of [1, 2, 3]) {
          const from = scrambledState(cube2, scramble(cube2, seed))
          const route = must(plan(cube2, school, from, { variant }))
          expectClean(route)
          for (const stage of route.stages)
            for (const step of stage.steps.filter(({ kind }) => kind === 'twist')) {
              const run = Number(
                /until run (\d+)|With run (\d+)/
                  .exec(step.note ?? '')
                  ?.slice(1)
                  .find(Boolean),
              )
              expect(run, step.note).toBeGreaterThan(0)
              foretold++
              expect(isWholeAfter(step, run)).toBe(true)
              const sum = (step.runs?.before ?? 0) + (step.runs?.times ?? 0)
              for (let before = sum; before < run; before++)
                expect(isWholeAfter(step, before), `${before} of ${run}`).toBe(false)
            }
        }
    expect(foretold).toBeGreaterThan(20)
  })
})

/** Whether a trigger, done so often, leaves all that does not lie in the last layer as it was. */
function isWholeAfter({ algorithm }: RouteStep, runs: number): boolean {
  let state: State = new Uint8Array(cube2.pieces.length)
  for (let run = 0; run < runs; run++)
    for (const name of algorithm) {
      const turn = cube2.turnByName.get(name)
      if (turn) state = turnFreely(cube2, state, turn, new Uint8Array(state.length))
    }
  // The trigger moves two layers: the last one is where only it has been at work.
  return ['U', 'D', 'L', 'R', 'F', 'B'].some((letter) => {
    const side = cube2.turnByName.get(letter)
    if (!side) return false
    const outside = cube2.pieces.flatMap((_, p) =>
      cube2.carry[side.grip][24 * p] === IN ? [] : [p],
    )
    return outside.length === 4 && outside.every((p) => state[p] === IDENTITY)
  })
}
