/** What tests of the core share: puzzles, and arbitrary turns and states of them. */
import fc from 'fast-check'
import { shippedPuzzle } from './catalog'
import { compile, type Puzzle, type Turn } from './puzzle/compile'
import { readDefinition } from './puzzle/definition'
import { must } from './result'
import { start, turnFreely, type State } from './state'

export const cube2 = must(shippedPuzzle('cube-2'))
export const cube3 = must(shippedPuzzle('cube-3'))

const boxes = new Map<string, Puzzle>()

export function box(...size: [number, number, number]): Puzzle {
  const key = size.join('x')
  const known = boxes.get(key)
  if (known) return known
  const definition = { schema: 1, id: `box-${key}`, name: key, mechanism: { kind: 'box', size } }
  const puzzle = compile(must(readDefinition(definition)))
  boxes.set(key, puzzle)
  return puzzle
}

const side = fc.integer({ min: 1, max: 5 })

/** Layered boxes up to five a side, the 1x1x1 left out. */
export const anyBox = fc
  .tuple(side, side, side)
  .filter((size) => Math.max(...size) > 1)
  .map((size) => box(...size))

export const turnsIn = (puzzle: Puzzle, most = 40): fc.Arbitrary<Turn[]> =>
  fc
    .array(fc.nat(puzzle.turns.length - 1), { maxLength: most })
    .map((indices) => indices.map((index) => puzzle.turns[index]))

export const boxAndTurns = anyBox.chain((puzzle) => fc.tuple(fc.constant(puzzle), turnsIn(puzzle)))

export const after = (puzzle: Puzzle, turns: readonly Turn[], from = start(puzzle)): State =>
  turns.reduce((state, turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length)), from)

/** States of a puzzle reached by random turns, in any hold. */
export const stateOf = (puzzle: Puzzle): fc.Arbitrary<State> =>
  turnsIn(puzzle, 60).map((turns) => after(puzzle, turns))
