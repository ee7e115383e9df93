/**
 * The first thing to settle: odd and even, and the sums of twists. They add up turn by turn, so the
 * shortest turns that bring them to nothing are found among the few sums that turns can reach.
 */
import { vectorOfState } from '../analysis/sums'
import type { Puzzle, Turn } from '../puzzle/compile'
import type { State } from '../state'
import { movesOf, type Move } from './moves'
import { workOf } from './orbitsAtWork'

/** More sums than this are not listed. */
const LIMIT = 400_000

interface Node {
  readonly vector: readonly number[]
  readonly from: number
  readonly move: Move | undefined
}

const trees = new WeakMap<Puzzle, { nodes: readonly Node[]; at: ReadonlyMap<string, number> }>()

function treeOf(puzzle: Puzzle) {
  const known = trees.get(puzzle)
  if (known) return known
  const { sums, columns } = workOf(puzzle)
  const moves = movesOf(puzzle)
  const moduli = columns.map((c) => sums.moduli[c])
  const steps = sums.turns.map((vector) => columns.map((c) => vector[c]))
  const nodes: Node[] = [{ vector: moduli.map(() => 0), from: -1, move: undefined }]
  const at = new Map([[nodes[0].vector.join(), 0]])
  for (let from = 0; from < nodes.length && nodes.length < LIMIT; from++)
    moves.forEach((move, t) => {
      const vector = nodes[from].vector.map((entry, c) => (entry + steps[t][c]) % moduli[c])
      const key = vector.join()
      if (at.has(key)) return
      at.set(key, nodes.length)
      nodes.push({ vector, from, move })
    })
  const tree = { nodes, at }
  trees.set(puzzle, tree)
  return tree
}

/** The fewest turns after which all sums are nothing; undefined if none are among those listed. */
export function sumsRoute(puzzle: Puzzle, state: State): Turn[] | undefined {
  const { sums, columns } = workOf(puzzle)
  const vector = vectorOfState(puzzle, sums, state)
  const wanted = columns.map((c) => (sums.moduli[c] - vector[c]) % sums.moduli[c])
  const { nodes, at } = treeOf(puzzle)
  let index = at.get(wanted.join())
  if (index === undefined) return undefined
  const found: Turn[] = []
  for (; nodes[index].move; index = nodes[index].from)
    found.push(...(nodes[index].move as Move).turns)
  return found
}
