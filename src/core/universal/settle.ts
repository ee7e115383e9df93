/**
 * What is settled before anything is placed: odd and even, the sums of twists, and orbits without
 * three-cycles, whose pieces are permuted by a small group of their own. All that turns reach of it is
 * listed breadth first from home, so that every state knows the shortest way. Sums are listed up to what
 * look-alikes can change unseen.
 */
import { lookClassesOf } from '../analysis/lookAlikes'
import type { Puzzle, Turn } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import { inverseOf, type State } from '../state'
import { groupOn } from '../analysis/order'
import { accountOf } from './account'
import { simplify } from '../notation/rewrite'
import { countLooks } from './countLooks'
import { followedBy, inverseEffect, type Effect } from './effects'
import type { Move } from './moves'
import { workOf } from './orbitsAtWork'
import { Sums } from './sumNumbers'

/** More states than this are not listed. */
const LIMIT = 120_000

export interface Settler {
  /** The fewest turns that settle it, for a state in the frame and in shape; undefined if none do. */
  readonly settle: (state: State) => Turn[] | undefined
  /**
   * Moves that leave it settled, for what comes after: out to a position, a step, and home again. Such words
   * generate all that leaves home alone (Schreier). Of those that do the same to the rest the shortest is kept.
   */
  readonly leaving: (rest: readonly number[]) => Move[]
}

/**
 * @param places of the orbits to bring home, as the eye sees it
 * @param moves that may be made
 * @param withSums whether parities and twist sums are brought to nothing too
 * @returns undefined if there is too much to list
 */
export function settler(
  puzzle: Puzzle,
  places: readonly number[],
  moves: readonly Move[],
  withSums: boolean,
  limit = LIMIT,
): Settler | undefined {
  const { coordinates, vectorOf, changes } = accountOf(puzzle)
  const moduli = coordinates.map(({ modulus }) => modulus)
  const sums = new Sums(
    moduli,
    changes.map(({ by }) => by),
  )
  const steps = moves
    .flatMap((move) => [move, undone(puzzle, move)])
    .map((move) => ({ ...move, by: vectorOf(move.effect) }))
  const { classSize } = lookClassesOf(puzzle)
  const hasEqual = places.some((p) => classSize[p] > 1)
  // Listed in vain it takes seconds.
  const effects = moves.map(({ effect }) => effect)
  if (places.length > 0 && !hasEqual && countLooks(puzzle, places, effects) > limit)
    return undefined
  const looks = new Uint16Array(places.length)
  const key = (at: Uint8Array, sum: number): number | string => {
    const coset = withSums ? sums.cosetOf(sum) : 0
    if (places.length === 0) return coset
    for (let i = 0; i < places.length; i++) looks[i] = puzzle.look[24 * places[i] + at[places[i]]]
    // A look tells its place, so sorted they are what the eye sees, whichever of equal pieces shows it.
    if (hasEqual) looks.sort()
    return `${coset} ${String.fromCharCode(...looks)}`
  }
  const step = (at: Uint8Array, effect: Effect) => {
    if (places.length === 0) return at
    const moved = new Uint8Array(at)
    for (const p of places) moved[p] = PRODUCT[24 * effect[puzzle.place[24 * p + at[p]]] + at[p]]
    return moved
  }
  interface Word {
    readonly length: number
    readonly out: Node
    readonly index: number
    readonly end: Node
    readonly effect: Effect
    readonly by: readonly number[]
  }
  interface Node {
    readonly at: Uint8Array
    readonly sum: number
    readonly depth: number
    /** How it was reached: from which position by which step; undefined at home. */
    readonly from?: Node
    readonly index: number
  }
  const home: Node = { at: new Uint8Array(puzzle.pieces.length), sum: 0, depth: 0, index: -1 }
  const nodes = new Map<number | string, Node>([[key(home.at, home.sum), home]])
  // Fewest turns first: a loop is a move of many turns.
  const waiting: Node[][] = [[home]]
  for (let depth = 0; depth < waiting.length; depth++)
    for (const from of waiting[depth] ?? [])
      for (let index = 0; index < steps.length; index++) {
        const { effect, by, turns } = steps[index]
        const at = step(from.at, effect)
        const sum = sums.plus(from.sum, by)
        const name = key(at, sum)
        if (nodes.has(name)) continue
        if (nodes.size >= limit) return undefined
        const node = { at, sum, depth: depth + turns.length, from, index }
        nodes.set(name, node)
        while (waiting.length <= node.depth) waiting.push([])
        waiting[node.depth].push(node)
      }
  // Steps stand in pairs, one undoing the other.
  const turnsHome = (node: Node): Turn[] => {
    const turns: Turn[] = []
    for (let at = node; at.from; at = at.from) turns.push(...steps[at.index ^ 1].turns)
    return turns
  }
  return {
    settle: (state) => {
      const node = nodes.get(key(new Uint8Array(state), sums.indexOf(vectorOf(state))))
      return node && turnsHome(node)
    },
    leaving: (rest) => {
      const effects = new Map<Node, Effect>([[home, new Uint8Array(puzzle.pieces.length)]])
      let tried = 0
      for (const out of waiting.flat()) {
        if (out.from)
          effects.set(
            out,
            followedBy(puzzle, effects.get(out.from) as Effect, steps[out.index].effect),
          )
        if ((tried += steps.length) > WORDS) break
      }
      const found = new Map<string, Word>()
      for (const [out, before] of effects)
        for (let index = 0; index < steps.length; index++) {
          const { effect, by, turns } = steps[index]
          const end = nodes.get(key(step(out.at, effect), sums.plus(out.sum, by)))
          const after = end && effects.get(end)
          if (!end || !after) continue
          const half = followedBy(puzzle, before, effect)
          const whole = followedBy(puzzle, half, inverseEffect(puzzle, after))
          const length = out.depth + turns.length + end.depth
          const sum = vectorOf(whole)
          const name = `${rest.map((q) => whole[q]).join()} ${sum.join()}`
          if ((found.get(name)?.length ?? Infinity) <= length) continue
          found.set(name, { length, out, index, end, effect: whole, by: sum })
        }
      const sorted = [...found.values()].sort((one, other) => one.length - other.length)
      return chosen(puzzle, rest, moduli, sorted).map(({ out, index, end, effect }) => {
        const turns = simplify(puzzle, [
          ...inverseOf(puzzle, turnsHome(out)),
          ...steps[index].turns,
          ...turnsHome(end),
        ])
        return { turns, effect, inverse: inverseEffect(puzzle, effect) }
      })
    },
  }
}

/** Words that are looked at for moves that leave something settled, and the shortest that are kept. */
const WORDS = 60_000
const KEPT = 12

/** The shortest, and such as do something to the rest that those before them cannot. */
function chosen<T extends { readonly effect: Effect; readonly by: readonly number[] }>(
  puzzle: Puzzle,
  rest: readonly number[],
  moduli: readonly number[],
  sorted: readonly T[],
): T[] {
  const orbits = workOf(puzzle).sums.orbits.filter(({ places }) => rest.includes(places[0]))
  const kept = sorted.slice(0, KEPT)
  let isOld = groupOn(puzzle, orbits, moduli, kept)
  for (const each of sorted.slice(KEPT)) {
    if (isOld(each)) continue
    kept.push(each)
    isOld = groupOn(puzzle, orbits, moduli, kept)
  }
  return kept
}

const undone = (puzzle: Puzzle, { turns, effect, inverse }: Move): Move => ({
  turns: inverseOf(puzzle, turns),
  effect: inverse,
  inverse: effect,
})
