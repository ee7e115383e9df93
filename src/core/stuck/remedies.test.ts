import { describe, expect, it } from 'vitest'
import { unseenChanges } from '../analysis/lookAlikes'
import { holdOf } from '../analysis/placements'
import { puzzleById } from '../catalog'
import { readTurns } from '../notation/read'
import { countJoined } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { multiply } from '../rotation'
import { isSolved, rotateState, start, turnAll, type State } from '../state'
import { diagnose } from './diagnose'
import { remediesFor, type Remedy } from './remedies'

const ROTATIONS = Array.from({ length: 24 }, (_, r) => r)
const prism = must(puzzleById('prism-6'))

/** Two pieces in each other's places, as far as some rotation puts them there. */
function exchanged(puzzle: Puzzle, p: number, q: number): State | undefined {
  const state = start(puzzle)
  const to = (from: number, place: number) =>
    ROTATIONS.find((r) => puzzle.place[24 * from + r] === place)
  const [there, back] = [to(p, q), to(q, p)]
  if (there === undefined || back === undefined) return undefined
  state[p] = there
  state[q] = back
  return state
}

const ends = (puzzle: Puzzle, state: State, { turns }: Remedy): State =>
  must(turnAll(puzzle, state, must(readTurns(puzzle, turns.join(' ')))))

/** States of the prism whose last two pieces look exchanged, because equal ones have traded places. */
function misleading(): State[] {
  const alike = unseenChanges(prism).find(({ pieces }) => pieces.length === 2)?.pieces ?? []
  const others = prism.pieces.flatMap((_, p) => (alike.includes(p) ? [] : [p]))
  const found: State[] = []
  for (const p of others)
    for (const q of others) {
      const state = p < q ? exchanged(prism, p, q) : undefined
      if (!state || isSolved(prism, state) || holdOf(prism, state) !== 0) continue
      if (diagnose(prism, state).verdict === 'look-alike') found.push(state)
      if (found.length === 3) return found
    }
  return found
}

describe('ways out of a trade of look-alikes', () => {
  it('lead home from any hold, the shortest first, and a trade never costs more than the way home', () => {
    const states = misleading()
    expect(states.length).toBeGreaterThan(0)
    for (const [i, state] of states.entries()) {
      const held = rotateState(state, prism.holds[i])
      const diagnosis = diagnose(prism, held)
      const remedies = remediesFor(prism, diagnosis)
      expect(remedies.map(({ kind }) => kind)).toContain('home')
      const counts = remedies.map(({ turnCount }) => turnCount)
      expect(counts).toEqual([...counts].sort((a, b) => a - b))
      // Turns of one layer that follow each other are made as one, and counted so.
      for (const { turns, turnCount } of remedies)
        expect(
          countJoined(
            prism,
            turns.map((name) => prism.turnByName.get(name) as Turn),
          ).turnCount,
        ).toBe(turnCount)
      for (const remedy of remedies)
        if (remedy.kind !== 'settle')
          expect(isSolved(prism, ends(prism, held, remedy)), remedy.kind).toBe(true)
      const trade = remedies.find(({ kind }) => kind === 'trade')
      const home = remedies.find(({ kind }) => kind === 'home')
      if (trade) {
        expect(trade.turnCount).toBeLessThan(home?.turnCount ?? 0)
        expect(trade.name).toMatch(/^Trade two equal /)
      }
    }
  })

  it('are one turn where a layer is out of register', () => {
    const turn = prism.turnByName.get('U') as never
    const held = must(turnAll(prism, start(prism), [turn]))
    const [remedy, ...more] = remediesFor(prism, diagnose(prism, held))
    expect(more).toEqual([])
    expect(remedy).toMatchObject({ kind: 'register', turnCount: 1 })
    expect(isSolved(prism, ends(prism, held, remedy))).toBe(true)
  })

  it('are none where the puzzle is home, or was put together wrongly', () => {
    const cube = must(puzzleById('cube-3'))
    const judged = (state: State) => diagnose(cube, state)
    expect(remediesFor(cube, judged(start(cube)))).toEqual([])
    const edge = cube.pieces.findIndex(({ kind }) => kind === 'edge')
    const flip = cube.holds.find((r) => r !== 0 && cube.place[24 * edge + r] === edge) as number
    const flipped = start(cube)
    flipped[edge] = multiply(flip, flipped[edge])
    expect(remediesFor(cube, judged(flipped))).toEqual([])
  })
})
