/**
 * How a sequence is built, found from its turns alone: a part repeated, a setup undone at the end (conjugate), a
 * commutator A B A' B', or one set up, also where turns of its parts have joined or cancelled.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { joinedTurn, simplify } from '../notation/rewrite'
import { expand, type Algorithm, type Node } from '../notation/tree'
import { inverseOf } from '../state'

/** Longest sequence that is looked at, in turns. */
const LONGEST = 40

const turnsOf = (turns: readonly Turn[]): Algorithm =>
  turns.map((turn): Node => ({ kind: 'turn', turn }))

const named = (turns: readonly Turn[]): string => turns.map(({ name }) => name).join(' ')

/** Undefined where it is none of these. What is found gives the same turns, once those of one layer are joined. */
export function structureOf(puzzle: Puzzle, given: readonly Turn[]): Algorithm | undefined {
  const turns = simplify(puzzle, given)
  if (turns.length < 3 || turns.length > LONGEST || turns.some(({ whole }) => whole))
    return undefined
  const repeated = repetition(turns)
  if (repeated) return repeated
  for (const { setup, body } of conjugates(puzzle, turns)) {
    const found = commutator(puzzle, body)
    if (found) return setup.length === 0 ? [found] : [conjugate(setup, [found])]
  }
  const [longest] = conjugates(puzzle, turns)
  if (longest.setup.length === 0) return undefined
  return [conjugate(longest.setup, repetition(longest.body) ?? turnsOf(longest.body))]
}

const conjugate = (setup: readonly Turn[], body: Algorithm): Node => ({
  kind: 'conjugate',
  setup: turnsOf(setup),
  body,
})

/** The shortest part of which it is some repeats. */
function repetition(turns: readonly Turn[]): Algorithm | undefined {
  for (let length = 2; length <= turns.length / 2; length++) {
    if (turns.length % length !== 0) continue
    if (turns.every(({ name }, i) => name === turns[i % length].name))
      return [
        {
          kind: 'group',
          body: turnsOf(turns.slice(0, length)),
          times: turns.length / length,
          inverse: false,
        },
      ]
  }
  return undefined
}

interface Split {
  readonly setup: readonly Turn[]
  readonly body: readonly Turn[]
}

/** Every way to read it as set up, done and undone: the longest setup first, none at the end. */
function conjugates(puzzle: Puzzle, turns: readonly Turn[]): Split[] {
  const splits: Split[] = [{ setup: [], body: turns }]
  for (let length = 1; 2 * length < turns.length; length++) {
    const [first, last] = [turns[length - 1], turns[turns.length - length]]
    if (first.inverse === last.index) {
      splits.unshift({ setup: turns.slice(0, length), body: turns.slice(length, -length) })
      continue
    }
    // Of S B S' the last turn of S' may have joined with the last of B: the setup is cut there.
    const joined = joinedTurn(puzzle, last, first)
    if (first.grip === last.grip && joined)
      splits.unshift({
        setup: turns.slice(0, length),
        body: [...turns.slice(length, turns.length - length), joined],
      })
    break
  }
  return splits
}

/** As A B A' B' with the shortest A; parts may end within a turn that is then two of its layer. */
function commutator(puzzle: Puzzle, body: readonly Turn[]): Node | undefined {
  if (body.length < 4) return undefined
  const wanted = named(simplify(puzzle, body))
  const most = Math.ceil(body.length / 2)
  for (let a = 1; a < most; a++)
    for (const A of cut(puzzle, body.slice(0, a)))
      for (let b = 1; b <= most; b++) {
        const rest = simplify(puzzle, [...inverseOf(puzzle, A), ...body])
        for (const B of cut(puzzle, rest.slice(0, b))) {
          const all = [...A, ...B, ...inverseOf(puzzle, A), ...inverseOf(puzzle, B)]
          if (named(simplify(puzzle, all)) === wanted)
            return { kind: 'commutator', first: turnsOf(A), second: turnsOf(B) }
        }
      }
  return undefined
}

/** A part as it stands, and with its last turn only a part of what it is. */
function cut(puzzle: Puzzle, part: readonly Turn[]): (readonly Turn[])[] {
  const last = part.at(-1)
  if (!last) return []
  const others = puzzle.turns.filter(
    ({ grip, index }) => grip === last.grip && index !== last.index,
  )
  return [part, ...others.map((turn) => [...part.slice(0, -1), turn])]
}

/** The turns of a structure, those of one layer joined. */
export const turnsOfStructure = (puzzle: Puzzle, structure: Algorithm): Turn[] =>
  simplify(puzzle, expand(puzzle, structure))
