/**
 * Set-up tables. A base cycle E takes x1 to x2 to x3 to x1 with rotations e1, e2, e3. After a set-up S,
 * which brings what is in places a, b, c with rotations s_a, s_b, s_c to x1, x2, x3, and before its undoing, it
 * takes a to b with s_b' e1 s_a, b to c with s_c' e2 s_b, c to a with s_a' e3 s_c, and nothing else. A
 * breadth-first search over the triples finds the shortest set-up for every such cycle.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { INVERSE, multiply, PRODUCT } from '../rotation'
import { isParallel, simplify } from '../notation/rewrite'
import type { BaseCycle } from './baseCycles'
import { movesOf, type Move } from './moves'

/** One of the three-cycles of an orbit: from a to b to c to a, with these rotations. */
export interface Cycle {
  readonly places: readonly [number, number, number]
  readonly rotations: readonly [number, number, number]
  /** Turns with set-up and undoing. */
  readonly length: number
  readonly base: BaseCycle
  readonly setup: readonly Turn[]
}

interface Node {
  readonly triple: readonly number[]
  readonly from: number
  readonly move: Move | undefined
  readonly depth: number
}

interface Joined {
  readonly setup: readonly Turn[]
  readonly turns: readonly Turn[]
}

const lengthOf = ({ setup, turns }: Joined): number => turns.length + 2 * setup.length

/** Nodes of one table; more would be no help to a person. */
const LIMIT = 60_000

/** A cycle before its turns are written out. */
export interface Found {
  readonly places: readonly [number, number, number]
  readonly rotations: readonly [number, number, number]
  readonly length: number
  readonly table: number
  readonly node: number
}

export class Setups {
  private readonly tables: { base: BaseCycle; nodes: Node[] }[] = []
  /** By the places a and b and the rotation from a to b. */
  private readonly byFirst = new Map<number, Found[]>()
  /** By the three places. */
  private readonly byPlaces = new Map<number, Found[]>()

  /**
   * @param depths for each cycle how many set-up turns at most
   * @param isApart whether no set-up turn may meet the layer with which the cycle begins or ends, so that this
   *   is always done as it is known
   */
  constructor(
    private readonly puzzle: Puzzle,
    given: readonly BaseCycle[],
    private readonly depths?: readonly number[],
    private readonly isApart = false,
  ) {
    // A cycle that goes through loops can turn one layer twice in a row.
    const bases = given.map((base) => ({ ...base, turns: simplify(puzzle, base.turns) }))
    const best = new Map<number, Found>()
    const hasLoops = movesOf(puzzle).some(({ turns }) => turns.length > 1)
    bases.forEach((base, table) => {
      const nodes = this.search(base, this.depths?.[table])
      this.tables.push({ base, nodes })
      nodes.forEach(({ triple, depth }, node) => {
        const length =
          hasLoops || (!this.isApart && this.meets(base, nodes, node))
            ? lengthOf(this.joined(base, this.setupOf(nodes, node)))
            : base.turns.length + 2 * depth
        const [a, b, c, sa, sb, sc] = triple
        const rotations = [
          multiply(INVERSE[sb], multiply(base.rotations[0], sa)),
          multiply(INVERSE[sc], multiply(base.rotations[1], sb)),
          multiply(INVERSE[sa], multiply(base.rotations[2], sc)),
        ]
        // The same cycle is read from each of its three places.
        const places = [a, b, c]
        for (const i of [0, 1, 2]) {
          const order = [i, (i + 1) % 3, (i + 2) % 3]
          const found: Found = {
            places: order.map((k) => places[k]) as unknown as Found['places'],
            rotations: order.map((k) => rotations[k]) as unknown as Found['rotations'],
            length,
            table,
            node,
          }
          const key = cycleKey(found)
          const known = best.get(key)
          if (!known || known.length > length) best.set(key, found)
        }
      })
    })
    for (const found of best.values()) {
      const [a, b, c] = found.places
      push(this.byFirst, this.firstKey(a, b, found.rotations[0]), found)
      push(this.byPlaces, this.placesKey(a, b, c), found)
    }
  }

  /** All cycles that take what is in one place to another with a rotation. */
  taking(from: number, to: number, rotation: number): readonly Found[] {
    return this.byFirst.get(this.firstKey(from, to, rotation)) ?? []
  }

  /** All cycles of three places in this order. */
  through(a: number, b: number, c: number): readonly Found[] {
    return this.byPlaces.get(this.placesKey(a, b, c)) ?? []
  }

  /** A found cycle with its turns. */
  cycle({ table, node, ...found }: Found): Cycle {
    const { base, nodes } = this.tables[table]
    const { setup, turns } = this.joined(base, this.setupOf(nodes, node))
    return { ...found, base: { ...base, turns }, setup }
  }

  private setupOf(nodes: readonly Node[], node: number): Turn[] {
    const setup: Turn[] = []
    for (let at = node; nodes[at].move; at = nodes[at].from)
      setup.push(...(nodes[at].move as Move).turns)
    // The end of a loop and the turn after it may be of one layer.
    return simplify(this.puzzle, setup)
  }

  /**
   * Whether a set-up turn turns the same layer as the cycle's first or last, with none between that does not
   * commute with it.
   */
  private meets({ turns }: BaseCycle, nodes: readonly Node[], node: number): boolean {
    const ends = this.endsOf(turns)
    return this.nearest(nodes, node).some(({ grip }) => ends.some((end) => end.grip === grip))
  }

  /** The first turns of a cycle that are about one axis, and the last. */
  private endsOf(turns: readonly Turn[]): Turn[] {
    const from = (row: readonly Turn[]) => {
      const other = row.findIndex((turn) => !isParallel(this.puzzle, row[0], turn))
      return row.slice(0, other < 0 ? row.length : other)
    }
    return [...from(turns), ...from([...turns].reverse())]
  }

  /** The set-up turns next to the cycle that turn about one axis. */
  private nearest(nodes: readonly Node[], node: number): Turn[] {
    const moves: Move[] = []
    for (let at = node; nodes[at].move; at = nodes[at].from) moves.push(nodes[at].move as Move)
    const found: Turn[] = []
    for (const move of moves.reverse())
      for (const turn of [...move.turns].reverse()) {
        if (found.length > 0 && !isParallel(this.puzzle, found[0], turn)) return found
        found.push(turn)
      }
    return found
  }

  /**
   * A cycle between its set-up and its undoing, where turns of one layer meet: they are one turn, or none.
   * What then is no longer undone as it was set up belongs to the cycle.
   */
  private joined({ turns }: BaseCycle, setup: readonly Turn[]): Joined {
    const { puzzle } = this
    let rest = setup
    let all = turns
    for (;;) {
      const far = rest.findLastIndex((turn) => !isParallel(puzzle, rest[rest.length - 1], turn))
      // Those about one axis commute: whichever meets the cycle can be the last.
      const next = rest
        .slice(far + 1)
        .find((turn) => this.between(turn, all).length < all.length + 2)
      if (!next) break
      all = this.between(next, all)
      const at = rest.lastIndexOf(next)
      rest = [...rest.slice(0, at), ...rest.slice(at + 1)]
    }
    return { setup: rest, turns: all }
  }

  private between = (turn: Turn, all: readonly Turn[]): Turn[] =>
    simplify(this.puzzle, [turn, ...all, this.puzzle.turns[turn.inverse]])

  private firstKey = (a: number, b: number, rotation: number) => (a * 256 + b) * 24 + rotation
  private placesKey = (a: number, b: number, c: number) => (a * 256 + b) * 256 + c

  private search({ places, turns }: BaseCycle, most = Infinity): Node[] {
    const { puzzle } = this
    const all = movesOf(puzzle)
    const ends = this.isApart ? this.endsOf(turns) : []
    /** Whether a move would meet an end of the cycle, past turns that commute with it. */
    const isMet = (from: number, { turns: [first] }: Move) =>
      ends.some(
        (end) =>
          end.grip === first.grip &&
          this.nearest(nodes, from).length === nodes[from].depth &&
          this.nearest(nodes, from).every((turn) => isParallel(puzzle, turn, end)),
      )
    // Read once: it is asked for many times.
    const product = PRODUCT
    const nodes: Node[] = [{ triple: [...places, 0, 0, 0], from: -1, move: undefined, depth: 0 }]
    const seen = new Set([tripleKey(nodes[0].triple)])
    // Fewest turns first: a loop is a move of many turns, so nodes wait in the order of their depth.
    const waiting: number[][] = [[0]]
    for (let depth = 0; depth < Math.min(most, waiting.length) && nodes.length < LIMIT; depth++)
      for (const from of waiting[depth] ?? []) {
        const { triple, move: last } = nodes[from]
        for (const move of all) {
          if (isMet(from, move)) continue
          if (last && move.turns.length === 1 && last.turns[0].grip === move.turns[0].grip) continue
          // The move is made first: what it brings to a was somewhere else before.
          const next = new Array<number>(6)
          for (let i = 0; i < 3; i++) {
            const place = triple[i]
            const before = puzzle.place[24 * place + move.inverse[place]]
            next[i] = before
            next[i + 3] = product[24 * triple[i + 3] + move.effect[before]]
          }
          const key = tripleKey(next)
          if (seen.has(key)) continue
          seen.add(key)
          const at = depth + move.turns.length
          while (waiting.length <= at) waiting.push([])
          waiting[at].push(nodes.length)
          nodes.push({ triple: next, from, move, depth: at })
        }
      }
    return nodes
  }
}

/** Three places below 256 and three rotations below 24 as one whole number. */
const tripleKey = ([a, b, c, r, s, t]: readonly number[]): number =>
  ((a * 256 + b) * 256 + c) * 13_824 + (r * 24 + s) * 24 + t

const cycleKey = ({ places, rotations }: Found): number => tripleKey([...places, ...rotations])

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
