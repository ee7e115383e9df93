/**
 * Two-ended search over the pieces that matter: from where they are, and from home, turn by turn until the
 * two meet. Other pieces go wherever they go, but what a sequence adds to a sum can be asked to be nothing.
 * For puzzles whose turns are always free.
 */
import { lookClassesOf } from '../analysis/lookAlikes'
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import type { State } from '../state'

/** Positions that are kept on each side. */
const KEPT = 40_000

/** Something that every turn adds to, numbered. */
export interface Tally {
  readonly plus: (sum: number, turn: Turn) => number
  /** Equal for sums that the eye cannot tell apart. */
  readonly seen: (sum: number) => number
}

interface Node {
  readonly rotations: Uint8Array
  readonly sum: number
  readonly from?: Node
  /** Position among the turns. */
  readonly turn: number
}

/**
 * @param pieces that must look home at the end
 * @param turns that may be made, with each its inverse
 * @param most turns of a sequence
 * @param wanted how many sequences, all of the fewest turns that were found
 * @param tally what the sequence must add nothing to, as it is seen
 */
export function shortestFor(
  puzzle: Puzzle,
  pieces: readonly number[],
  state: State,
  turns: readonly Turn[],
  most: number,
  wanted: number,
  tally: Tally = { plus: () => 0, seen: () => 0 },
): Turn[][] {
  const { classSize } = lookClassesOf(puzzle)
  const hasEqual = pieces.some((p) => classSize[p] > 1)
  const looks = new Uint16Array(pieces.length)
  const keyOf = (rotations: Uint8Array, sum: number) => {
    for (let i = 0; i < pieces.length; i++) looks[i] = puzzle.look[24 * pieces[i] + rotations[i]]
    if (hasEqual) looks.sort()
    return `${tally.seen(sum)} ${String.fromCharCode(...looks)}`
  }
  const begin = (rotations: Uint8Array) => {
    const node: Node = { rotations, sum: 0, turn: -1 }
    return { depth: 0, front: [node], seen: new Map([[keyOf(rotations, 0), node]]) }
  }
  const there = begin(Uint8Array.from(pieces, (p) => state[p]))
  const home = begin(new Uint8Array(pieces.length))
  const grow = (side: typeof there) => {
    const next: Node[] = []
    for (const node of side.front)
      for (let t = 0; t < turns.length; t++) {
        if (node.turn >= 0 && turns[node.turn].grip === turns[t].grip) continue
        const rotations = turnedBy(puzzle, pieces, node.rotations, turns[t])
        const sum = tally.plus(node.sum, turns[t])
        const key = keyOf(rotations, sum)
        if (side.seen.has(key)) continue
        const found: Node = { rotations, sum, from: node, turn: t }
        side.seen.set(key, found)
        next.push(found)
      }
    side.front = next
    side.depth++
  }
  const inverse = new Map(turns.map((turn) => [turn.index, puzzle.turns[turn.inverse]]))
  const found: Turn[][] = []
  const meet = (side: typeof there, other: typeof there) => {
    for (const node of side.front) {
      const across = other.seen.get(keyOf(node.rotations, node.sum))
      if (!across) continue
      const [fromThere, fromHome] = side === there ? [node, across] : [across, node]
      const way = pathTo(turns, fromThere).reverse()
      for (let at = fromHome; at.from; at = at.from)
        way.push(inverse.get(turns[at.turn].index) as Turn)
      found.push(way)
      if (found.length >= wanted) return
    }
  }
  meet(there, home)
  while (found.length === 0 && there.depth + home.depth < most) {
    const [side, other] = there.front.length <= home.front.length ? [there, home] : [home, there]
    if (side.front.length === 0 || side.seen.size > KEPT) break
    grow(side)
    meet(side, other)
  }
  return found
}

/** The turns that led to a node, the last first. */
function pathTo(turns: readonly Turn[], node: Node): Turn[] {
  const path: Turn[] = []
  for (let at = node; at.from; at = at.from) path.push(turns[at.turn])
  return path
}

function turnedBy(
  puzzle: Puzzle,
  pieces: readonly number[],
  rotations: Uint8Array,
  turn: Turn,
): Uint8Array {
  const carry = puzzle.carry[turn.grip]
  const next = new Uint8Array(rotations)
  for (let i = 0; i < pieces.length; i++)
    if (carry[24 * pieces[i] + rotations[i]] === IN)
      next[i] = PRODUCT[24 * turn.rotation + rotations[i]]
  return next
}
