/**
 * The way back for a shape. A table for the core's corners and one for its edges, each alone, say how many
 * turns are needed at least. All shapes few turns away from the finished one are listed, so that a search
 * need only come near it. First the fewest turns are looked for (iterative deepening); where that takes
 * too long, few turns (a beam of those that seem nearest).
 */
import type { Turn } from '../puzzle/compile'

export interface ShapePart {
  /** Places. */
  readonly size: number
  /** Looks of one place are numbered in so many bits. */
  readonly bits: number
  /** For each turn, `[place << bits | look]`: the bits of what that look becomes where it goes. */
  readonly moves: readonly Int32Array[]
}

/** A turn of the core, and the axis that it shares with the turns that it commutes with. */
export interface ShapeTurn {
  readonly turn: Turn
  readonly axis: string
}

/** For each part the looks of its places, so many bits each, the first lowest; 0 is finished. */
export type Shape = readonly number[]

interface Node {
  readonly shape: Shape
  readonly from?: Node
  readonly turn: number
  readonly depth: number
}

const UNREACHED = 255
/** Deepest search; every shape is within it. */
const MOST_TURNS = 14
/** Shapes within so many turns of the finished one are listed. */
const NEAR = 4
/** Shapes that the search for the fewest turns looks at before it gives way to a quicker one. */
const PATIENCE = 250_000
/** Shapes that the quicker search goes on from at every turn, and how far. */
const BREADTH = 1000
const MOST_STEPS = 24

export class ShapeSearch {
  /** For each part, turns to the finished look. */
  private readonly distances: readonly Uint8Array[]
  private readonly halves: readonly Halved[]
  private listed: ReadonlyMap<number, Node> | undefined

  constructor(
    private readonly parts: readonly ShapePart[],
    private readonly turns: readonly ShapeTurn[],
  ) {
    this.halves = parts.map(halved)
    this.distances = this.halves.map(distancesOf)
  }

  /** Turns to the finished shape; undefined if none were found. */
  back(shape: Shape): Turn[] | undefined {
    if (this.atLeast(shape) === UNREACHED) return undefined
    return this.fewest(shape) ?? this.few(shape)
  }

  private fewest(begun: Shape): Turn[] | undefined {
    const near = this.near()
    const path: Turn[] = []
    let looked = 0
    const search = (shape: Shape, left: number, axis: string, grip: number): boolean => {
      if (looked++ > PATIENCE || this.atLeast(shape) > left) return false
      if (left <= NEAR) {
        const end = near.get(this.key(shape))
        if (!end || end.depth > left) return false
        path.push(...this.turnsBack(end))
        return true
      }
      for (const [t, each] of this.turns.entries()) {
        if (each.turn.grip === grip || (each.axis === axis && each.turn.grip < grip)) continue
        path.push(each.turn)
        if (search(this.after(shape, t), left - 1, each.axis, each.turn.grip)) return true
        path.pop()
      }
      return false
    }
    for (let depth = this.atLeast(begun); depth <= MOST_TURNS && looked <= PATIENCE; depth++)
      if (search(begun, depth, '', -1)) return path
    return undefined
  }

  /** Turn by turn, always on from those shapes that seem nearest. */
  private few(begun: Shape): Turn[] | undefined {
    const near = this.near()
    const seen = new Set([this.key(begun)])
    let front: Node[] = [{ shape: begun, turn: -1, depth: 0 }]
    for (let depth = 1; depth <= MOST_STEPS; depth++) {
      const next: Node[][] = []
      for (const from of front)
        for (const [turn, each] of this.turns.entries()) {
          if (from.turn >= 0 && each.turn.grip === this.turns[from.turn].turn.grip) continue
          const shape = this.after(from.shape, turn)
          const key = this.key(shape)
          if (seen.has(key)) continue
          seen.add(key)
          const node = { shape, from, turn, depth }
          const end = near.get(key)
          if (end) return [...this.turnsTo(node), ...this.turnsBack(end)]
          ;(next[this.seems(shape)] ??= []).push(node)
        }
      front = next.flat().slice(0, BREADTH)
    }
    return undefined
  }

  /** Breadth first from the finished shape. */
  private near(): ReadonlyMap<number, Node> {
    if (this.listed) return this.listed
    let front: Node[] = [{ shape: this.parts.map(() => 0), turn: -1, depth: 0 }]
    const near = new Map([[0, front[0]]])
    for (let depth = 1; depth <= NEAR; depth++) {
      const next: Node[] = []
      for (const from of front)
        for (let turn = 0; turn < this.turns.length; turn++) {
          const shape = this.after(from.shape, turn)
          const key = this.key(shape)
          if (near.has(key)) continue
          const node = { shape, from, turn, depth }
          near.set(key, node)
          next.push(node)
        }
      front = next
    }
    this.listed = near
    return near
  }

  private turnsTo(node: Node): Turn[] {
    const path: Turn[] = []
    for (let each = node; each.from; each = each.from) path.push(this.turns[each.turn].turn)
    return path.reverse()
  }

  private turnsBack(node: Node): Turn[] {
    const undo = ({ grip, amount }: Turn) =>
      this.turns.find(({ turn }) => turn.grip === grip && (turn.amount + amount) % 4 === 0)?.turn
    return this.turnsTo(node)
      .reverse()
      .map((turn) => undo(turn) as Turn)
  }

  private after(shape: Shape, turn: number): Shape {
    return shape.map((looks, i) => turned(this.halves[i], looks, turn))
  }

  private atLeast(shape: Shape): number {
    let most = 0
    for (let i = 0; i < shape.length; i++) most = Math.max(most, this.distances[i][shape[i]])
    return most
  }

  private seems(shape: Shape): number {
    let sum = 0
    for (let i = 0; i < shape.length; i++) sum += this.distances[i][shape[i]]
    return sum
  }

  /** All looks in one number: at most 48 bits for eight corners and twelve edges. */
  private key(shape: Shape): number {
    return shape.reduceRight((key, looks, i) => {
      const { bits, size } = this.parts[i]
      return key * 2 ** (bits * size) + looks
    }, 0)
  }
}

/** A part with its looks cut in two, so that a turn is two steps in tables. */
interface Halved {
  readonly shift: number
  /** For each turn, by the looks of the places of that half: the bits of what they become. */
  readonly low: readonly Int32Array[]
  readonly high: readonly Int32Array[]
  readonly count: number
}

function halved({ size, bits, moves }: ShapePart): Halved {
  const cut = Math.ceil(size / 2)
  const mask = (1 << bits) - 1
  const tables = (from: number, to: number) =>
    moves.map((move) =>
      Int32Array.from({ length: 2 ** (bits * (to - from)) }, (_, looks) => {
        let next = 0
        for (let i = from; i < to; i++)
          next |= move[(i << bits) | ((looks >>> (bits * (i - from))) & mask)]
        return next
      }),
    )
  return {
    shift: bits * cut,
    low: tables(0, cut),
    high: tables(cut, size),
    count: 2 ** (bits * size),
  }
}

/** The looks after a turn: what each place gets, put together. */
const turned = ({ shift, low, high }: Halved, looks: number, turn: number): number =>
  low[turn][looks & ((1 << shift) - 1)] | high[turn][looks >>> shift]

function distancesOf(part: Halved): Uint8Array {
  const distances = new Uint8Array(part.count).fill(UNREACHED)
  let front = [0]
  distances[0] = 0
  for (let depth = 1; front.length > 0; depth++) {
    const next: number[] = []
    for (const looks of front)
      for (let turn = 0; turn < part.low.length; turn++) {
        const to = turned(part, looks, turn)
        if (distances[to] !== UNREACHED) continue
        distances[to] = depth
        next.push(to)
      }
    front = next
  }
  return distances
}
