import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CATALOG_IDS, puzzleById } from '../catalog'
import { slabsOf } from '../analysis/layers'
import { countJoined, countTurns, simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { schoolsOf } from '../schools'
import { SHORTEST_ID } from '../schools/shortest'
import { scramble, scrambledState } from '../scramble/scramble'
import { isSolved, sameState, start, turnFreely, type State } from '../state'
import { cube3, turnsIn } from '../testing'
import { follow, openBench, type Bench } from './bench'
import { meetingClaims, meetingsOf, turnsBetween } from './meetings'
import { plan } from './plan'
import { stepsOf, turnsOfRoute, type Route } from './route'

const doAll = (puzzle: Puzzle, from: State, turns: readonly Turn[]): State =>
  turns.reduce<State>(
    (state, turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length)),
    from,
  )

const tapeOf = (puzzle: Puzzle, route: Route): Turn[] =>
  turnsOfRoute(route).map(({ name }) => puzzle.turnByName.get(name) as Turn)

/** The tape with what the cards say done: those that are one turn made once, those that cancel left out. */
function asTold(puzzle: Puzzle, route: Route): Turn[] {
  const tape: (Turn | undefined)[] = tapeOf(puzzle, route)
  for (const { first, second, one } of meetingsOf(puzzle, tapeOf(puzzle, route))) {
    tape[first] = one
    tape[second] = undefined
  }
  return tape.filter((turn) => turn !== undefined)
}

describe('turns in a row', () => {
  it('do the same once they are joined, and none is left that could be', () => {
    fc.assert(
      fc.property(turnsIn(cube3), (turns) => {
        const joined = simplify(cube3, turns)
        expect(
          sameState(doAll(cube3, start(cube3), turns), doAll(cube3, start(cube3), joined)),
        ).toBe(true)
        expect(simplify(cube3, joined)).toEqual(joined)
        expect(countJoined(cube3, turns).turnCount).toBe(countTurns(joined))
      }),
    )
  })
})

/** Puzzles whose plans take long are measured in the benchmark. */
const LONG = ['circle-3', 'plus-3x3x3', 'diagonal-3x3x5', 'bipyramid-6', 'box-4x4x5', 'shift-3x3x5']
const PUZZLES = CATALOG_IDS.filter((id) => !LONG.includes(id))

describe('a route in any school', () => {
  it.each(PUZZLES)('of %s wastes no turn within a step, and tells those that meet', (id) => {
    const puzzle = must(puzzleById(id))
    const named = new Set(slabsOf(puzzle))
    for (const school of schoolsOf(puzzle).filter((each) => each.id !== SHORTEST_ID)) {
      const from = scrambledState(puzzle, scramble(puzzle, 1))
      const route = must(plan(puzzle, school, from))
      // A layer has one name, whoever names it.
      for (const { name } of turnsOfRoute(route)) {
        const turn = puzzle.turnByName.get(name) as Turn
        expect(turn.whole || named.has(turn.grip), name).toBe(true)
      }
      for (const { turns, id: step } of stepsOf(route)) {
        // A turn that shows a position is looked at before the sequence begins.
        const prepared = turns.findLastIndex(({ role }) => role === 'prepare') + 1
        for (const part of [turns.slice(0, prepared), turns.slice(prepared)]) {
          const made = part.map(({ name }) => puzzle.turnByName.get(name) as Turn)
          expect(countJoined(puzzle, made).turnCount, `${school.id} ${step}`).toBe(countTurns(made))
        }
      }
      const told = asTold(puzzle, route)
      expect(isSolved(puzzle, doAll(puzzle, from, told))).toBe(true)
      expect(countTurns(told), school.id).toBe(route.turnCount)
    }
  })

  it('says on the card what two steps have in common, and the bench takes both ways', () => {
    const puzzle = cube3
    const [school] = schoolsOf(puzzle)
    let joined = 0
    let left = 0
    for (let seed = 1; seed <= 12; seed++) {
      const from = scrambledState(puzzle, scramble(puzzle, seed))
      const route = must(plan(puzzle, school, from))
      const begun = follow(openBench(puzzle, from), { kind: 'route', atMs: 0, route })
      const tape = tapeOf(puzzle, route)
      const make = (bench: Bench, turn: Turn) =>
        follow(bench, { kind: 'turn', atMs: 0, name: turn.name })
      const meetings = meetingsOf(puzzle, tape)
      for (const meeting of meetings) {
        const { first, second, one } = meeting
        // The turn after those that cancel can cancel what stood before them.
        if (meetings.some((other) => other.second === second + 1)) continue
        const between = turnsBetween(tape, meetings, meeting)
        const next = tape[second + 1]
        const before = tape.slice(0, first).reduce(make, begun)
        const after = [...(one ? [one] : []), ...between, ...(one ? [] : [next])].reduce(
          make,
          before,
        )
        // With nothing between, what cancels leads nowhere.
        expect(after.done).toBe(one ? second + 1 : second + 2)
        expect(after.slips).toBe(0)
        if (one) joined++
        else left++
      }
      for (const step of stepsOf(route)) {
        const told = [...meetingClaims(step, 'within'), ...meetingClaims(step, 'next')]
        for (const { here, there, one } of step.meets ?? [])
          expect(told).toContainEqual(
            expect.objectContaining({ here, there, ...(one ? { one } : {}) }),
          )
      }
    }
    expect(joined).toBeGreaterThan(0)
    expect(left).toBeGreaterThan(0)
  })
})
