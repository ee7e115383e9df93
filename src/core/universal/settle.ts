/**
 * What is settled before anything is placed: odd and even, the sums of twists, and orbits without
 * three-cycles, whose pieces are permuted by a small group of their own. All that turns reach of it is
 * listed breadth first from home, so that every state knows the shortest way. Sums are listed up to what
 * look-alikes can change unseen.
 */
import { spanOf, type Span } from '../analysis/invariants'
import type { Puzzle, Turn } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import { inverseOf, type State } from '../state'
import { accountOf } from './account'
import type { Effect } from './effects'
import { movesOf, type Move } from './moves'

/** More states than this are not listed. */
const LIMIT = 120_000

/** The fewest turns that settle it, for a state in the frame and in shape; undefined if none do. */
export type Settler = (state: State) => Turn[] | undefined

/**
 * @param places of the orbits to bring home, as the eye sees it
 * @param done places that must not be disturbed
 * @param withSums whether parities and twist sums are brought to nothing too
 * @returns undefined if there is too much to list
 */
export function settler(
  puzzle: Puzzle,
  places: readonly number[],
  done: readonly number[],
  withSums: boolean,
  limit = LIMIT,
): Settler | undefined {
  const { coordinates, vectorOf, changes } = accountOf(puzzle)
  const moduli = coordinates.map(({ modulus }) => modulus)
  const sums = new Sums(
    moduli,
    changes.map(({ by }) => by),
  )
  const steps = movesOf(puzzle)
    .filter(({ effect }) => done.every((q) => isUnseen(puzzle, q, effect[q])))
    .flatMap((move) => [move, undone(puzzle, move)])
    .map((move) => ({ ...move, by: vectorOf(move.effect) }))
  const key = (at: Uint8Array, sum: number): number | string => {
    const coset = withSums ? sums.cosetOf(sum) : 0
    if (places.length === 0) return coset
    let looks = `${coset} `
    for (const p of places) looks += String.fromCharCode(puzzle.look[24 * p + at[p]])
    return looks
  }
  const step = (at: Uint8Array, effect: Effect) => {
    if (places.length === 0) return at
    const moved = new Uint8Array(at)
    for (const p of places) moved[p] = PRODUCT[24 * effect[puzzle.place[24 * p + at[p]]] + at[p]]
    return moved
  }
  interface Node {
    readonly at: Uint8Array
    readonly sum: number
  }
  const home: Node = { at: new Uint8Array(puzzle.pieces.length), sum: 0 }
  // Moves stand in pairs, one undoing the other: what led here from home leads back undone.
  const back = new Map<number | string, number>([[key(home.at, home.sum), -1]])
  // Fewest turns first: a loop is a move of many turns.
  const waiting: Node[][] = [[home]]
  for (let depth = 0; depth < waiting.length; depth++)
    for (const node of waiting[depth] ?? [])
      for (let index = 0; index < steps.length; index++) {
        const { effect, by, turns } = steps[index]
        const next = { at: step(node.at, effect), sum: sums.plus(node.sum, by) }
        const name = key(next.at, next.sum)
        if (back.has(name)) continue
        if (back.size >= limit) return undefined
        back.set(name, index ^ 1)
        const at = depth + turns.length
        while (waiting.length <= at) waiting.push([])
        waiting[at].push(next)
      }
  return (state) => {
    let at: Uint8Array = new Uint8Array(state)
    let sum = sums.indexOf(vectorOf(state))
    const found: Turn[] = []
    for (;;) {
      const index = back.get(key(at, sum))
      if (index === undefined) return undefined
      if (index < 0) return found
      const { effect, by, turns } = steps[index]
      found.push(...turns)
      at = step(at, effect)
      sum = sums.plus(sum, by)
    }
  }
}

/** Vectors of sums as whole numbers, in mixed radix, and their cosets under what is not seen. */
class Sums {
  private readonly cosets = new Map<number, number>()
  private readonly numbers = new Map<string, number>()
  private readonly span: Span

  constructor(
    private readonly moduli: readonly number[],
    private readonly unseen: readonly (readonly number[])[],
  ) {
    this.span = spanOf(unseen, moduli)
  }

  indexOf(vector: readonly number[]): number {
    let index = 0
    for (let c = vector.length - 1; c >= 0; c--) index = index * this.moduli[c] + vector[c]
    return index
  }

  plus(index: number, vector: readonly number[]): number {
    let rest = index
    let unit = 1
    let sum = 0
    for (let c = 0; c < vector.length; c++) {
      const modulus = this.moduli[c]
      const entry = rest % modulus
      rest = (rest - entry) / modulus
      sum += unit * ((entry + vector[c]) % modulus)
      unit *= modulus
    }
    return sum
  }

  cosetOf(index: number): number {
    if (this.unseen.length === 0) return index
    const known = this.cosets.get(index)
    if (known !== undefined) return known
    let rest = index
    const vector = this.moduli.map((modulus) => {
      const entry = rest % modulus
      rest = (rest - entry) / modulus
      return entry
    })
    const name = this.span.cosetOf(vector)
    const number = this.numbers.get(name) ?? this.numbers.size
    this.numbers.set(name, number)
    this.cosets.set(index, number)
    return number
  }
}

const isUnseen = (puzzle: Puzzle, place: number, rotation: number): boolean =>
  puzzle.look[24 * place + rotation] === puzzle.look[24 * place]

const undone = (puzzle: Puzzle, { turns, effect, inverse }: Move): Move => ({
  turns: inverseOf(puzzle, turns),
  effect: inverse,
  inverse: effect,
})
