/**
 * Two-ended search over the pieces that matter: from where they are, and from home, turn by turn until the
 * two meet. Other pieces go wherever they go, but what a sequence adds to a sum can be asked to be nothing.
 * Where turns can be blocked, the pieces that decide it go along on both sides, whichever they are.
 */
import { decidersOf, isBlocked, turnedRotations } from '../analysis/deciders'
import type { Puzzle, Turn } from '../puzzle/compile'
import { looksHome, turnFreely, type State } from '../state'
import { keysOf } from './lookKeys'

/** Positions that are grown from between two rests. */
const BETWEEN_RESTS = 1000

/** Sequences of one length that are judged at most. */
const JUDGED = 300

/** Keys have 53 bits: 32 and these. */
const LOW_RANGE = 2 ** 21

/** Something that every turn adds to, numbered. */
export interface Tally {
  readonly plus: (sum: number, turn: Turn) => number
  /** Equal for sums that the eye cannot tell apart. */
  readonly seen: (sum: number) => number
}

interface Node {
  /** Of the pieces that matter, then of those that decide what is blocked. */
  readonly rotations: Uint8Array
  readonly sum: number
  readonly from?: Node
  /** Position among the turns. */
  readonly turn: number
}

export interface Search {
  /** Pieces that must look home at the end. */
  readonly pieces: readonly number[]
  /** In shape. */
  readonly state: State
  /** That may be made, with each its inverse. */
  readonly turns: readonly Turn[]
  /** Turns of a sequence. */
  readonly most: number
  /** How many sequences, all of the fewest turns that were found. */
  readonly ways: number
  /** Positions that are kept on each side. */
  readonly kept: number
  /** What a sequence must add nothing to, as it is seen. */
  readonly tally?: Tally
  /** Judges a sequence as a whole. */
  readonly accepts?: (way: readonly Turn[]) => boolean
  /** Called every few milliseconds; true ends the search. */
  readonly rest?: () => Promise<boolean>
}

const NO_TALLY: Tally = { plus: () => 0, seen: () => 0 }

/** Sequences of the fewest turns that do what is asked; none if there are none, or if it was ended. */
export async function shortestFor(
  puzzle: Puzzle,
  {
    pieces,
    state,
    turns,
    most,
    ways,
    kept,
    tally = NO_TALLY,
    accepts = () => true,
    rest = () => Promise.resolve(false),
  }: Search,
): Promise<Turn[][]> {
  // In shape every place is filled, so whichever pieces are taken for those that decide will do.
  const deciders = decidersOf(puzzle)
  const tracked = [...pieces, ...deciders]
  const keys = keysOf(puzzle)
  const keyOf = (rotations: Uint8Array, sum: number): number => {
    const seen = tally.seen(sum) + 1
    let high = Math.imul(seen, 0x9e3779b1)
    let low = Math.imul(seen, 0x85ebca6b)
    for (let i = 0; i < pieces.length; i++) {
      const look = puzzle.look[24 * pieces[i] + rotations[i]]
      high ^= keys.look.high[look]
      low ^= keys.look.low[look]
    }
    for (let i = 0; i < deciders.length; i++) {
      const slot = puzzle.slot[24 * deciders[i] + rotations[pieces.length + i]]
      high ^= keys.slot.high[slot]
      low ^= keys.slot.low[slot]
    }
    return (high >>> 0) * LOW_RANGE + ((low >>> 0) % LOW_RANGE)
  }
  const begin = (rotations: Uint8Array) => {
    const node: Node = { rotations, sum: 0, turn: -1 }
    return { depth: 0, front: [node], seen: new Map<number, Node>([[keyOf(rotations, 0), node]]) }
  }
  const there = begin(Uint8Array.from(tracked, (p, i) => (i < pieces.length ? state[p] : 0)))
  const home = begin(new Uint8Array(tracked.length))
  let isEnded = false
  const grow = async (side: typeof there) => {
    const next: Node[] = []
    for (const [n, node] of side.front.entries()) {
      if (n % BETWEEN_RESTS === BETWEEN_RESTS - 1 && (isEnded = await rest())) return
      for (let t = 0; t < turns.length; t++) {
        if (node.turn >= 0 && turns[node.turn].grip === turns[t].grip) continue
        if (isBlocked(puzzle, deciders, node.rotations, turns[t])) continue
        const rotations = turnedRotations(puzzle, tracked, node.rotations, turns[t])
        const sum = tally.plus(node.sum, turns[t])
        const key = keyOf(rotations, sum)
        if (side.seen.has(key)) continue
        const found: Node = { rotations, sum, from: node, turn: t }
        side.seen.set(key, found)
        next.push(found)
      }
    }
    side.front = next
    side.depth++
  }
  const inverse = new Map(turns.map((turn) => [turn.index, puzzle.turns[turn.inverse]]))
  const found: Turn[][] = []
  const meet = (side: typeof there, other: typeof there) => {
    let judged = 0
    for (const node of side.front) {
      const across = other.seen.get(keyOf(node.rotations, node.sum))
      if (!across) continue
      const [fromThere, fromHome] = side === there ? [node, across] : [across, node]
      const way = pathTo(turns, fromThere).reverse()
      for (let at = fromHome; at.from; at = at.from)
        way.push(inverse.get(turns[at.turn].index) as Turn)
      if (leadsHome(puzzle, pieces, state, way) && accepts(way)) found.push(way)
      if (found.length >= ways || ++judged >= JUDGED) return
    }
  }
  meet(there, home)
  while (found.length === 0 && there.depth + home.depth < most) {
    const [side, other] = there.front.length <= home.front.length ? [there, home] : [home, there]
    if (side.front.length === 0 || side.seen.size > kept) break
    await grow(side)
    if (isEnded) break
    meet(side, other)
  }
  return found
}

function leadsHome(
  puzzle: Puzzle,
  pieces: readonly number[],
  state: State,
  way: readonly Turn[],
): boolean {
  const end = way.reduce<State>((now, turn) => turnFreely(puzzle, now, turn, now), state.slice())
  return pieces.every((p) => looksHome(puzzle, p, end[p]))
}

/** The turns that led to a node, the last first. */
function pathTo(turns: readonly Turn[], node: Node): Turn[] {
  const path: Turn[] = []
  for (let at = node; at.from; at = at.from) path.push(turns[at.turn])
  return path
}
