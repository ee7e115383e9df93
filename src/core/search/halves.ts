/**
 * The fewest turns for several positions at once, where they are too many for a search that keeps what it comes to: all
 * positions that some turns of home away are kept once, as keys alone, and from each position in question turns are
 * gone through without keeping any. What meets is followed to its end on the engine.
 */
import { isParallel } from '../notation/rewrite'
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { PRODUCT, ROTATION_COUNT } from '../rotation'
import { start, turnAll, type State } from '../state'
import { must } from '../result'
import { keysOf } from './lookKeys'
import { shortestFor } from './twoEnded'

export interface Halves {
  /** That may be made, with each its inverse; they are never blocked. */
  readonly turns: readonly Turn[]
  /** Turns from home of the positions that are kept, and of those that are gone through from the other end. */
  readonly near: number
  readonly far: number
  /** How many keys there is room for, as a power of two; two thirds of it may be filled. */
  readonly room: number
  /** Ways that are given for each position. */
  readonly ways: number
  readonly tell?: (sentence: string) => void
}

export interface Fewest {
  /** From the position home, of the fewest turns; none where there is none of up to `near + far`. */
  readonly ways: readonly (readonly Turn[])[]
  /** Up to how many turns there is none. */
  readonly none: number
}

/** With each position's number what was found for it, as it is found; those that are skipped are left out. */
export async function* fewestTurns(
  puzzle: Puzzle,
  positions: readonly State[],
  halves: Halves,
  skips: (position: State) => boolean = () => false,
): AsyncGenerator<readonly [number, Fewest]> {
  const { near, far, tell = () => undefined } = halves
  const walk = new Walk(puzzle, halves)
  walk.through(start(puzzle), near, (high, low) => walk.keys.add(high, low))
  walk.keys.add(...walk.keyOf(start(puzzle)))
  tell(`${walk.keys.count} positions up to ${near} turns from home`)
  for (const [at, position] of positions.entries()) {
    if (skips(position)) continue
    let ways: Turn[][] = []
    let more = 0
    for (; more <= far && ways.length === 0; more++) {
      const meetings: (readonly Turn[])[] = []
      walk.through(position, more, (high, low, depth, path) => {
        if (depth < more || !walk.keys.has(high, low)) return
        meetings.push([...path].map((t) => halves.turns[t]))
      })
      ways = await ended(puzzle, position, meetings, halves)
      tell(`${ways.length} ways in up to ${near + more} turns`)
    }
    yield [at, { ways, none: ways.length > 0 ? ways[0].length - 1 : near + far }]
  }
}

/** Ways home through positions that are kept, the fewest turns only. */
async function ended(
  puzzle: Puzzle,
  position: State,
  meetings: readonly (readonly Turn[])[],
  { near, turns, ways: most }: Halves,
): Promise<Turn[][]> {
  const ways = new Map<string, Turn[]>()
  for (const begun of meetings.slice(0, most)) {
    const rest = await shortestFor(puzzle, {
      pieces: puzzle.pieces.map((_, p) => p),
      state: must(turnAll(puzzle, position, begun)),
      turns,
      most: near,
      ways: most,
      kept: 1_000_000,
    })
    for (const end of rest)
      ways.set([...begun, ...end].map(({ name }) => name).join(' '), [...begun, ...end])
  }
  const fewest = Math.min(...[...ways.values()].map((way) => way.length))
  return [...ways.values()].filter((way) => way.length === fewest).slice(0, most)
}

/** Keys of 64 bits, open addressing; the key of zeros is taken for one that is there. */
class Keys {
  count = 0
  private readonly high: Int32Array
  private readonly low: Int32Array
  private readonly mask: number

  constructor(room: number) {
    this.high = new Int32Array(2 ** room)
    this.low = new Int32Array(2 ** room)
    this.mask = 2 ** room - 1
  }

  private slotFor(high: number, low: number): number {
    let slot = (low ^ Math.imul(high, 0x9e3779b1)) & this.mask
    while (
      (this.high[slot] !== high || this.low[slot] !== low) &&
      (this.high[slot] !== 0 || this.low[slot] !== 0)
    )
      slot = (slot + 1) & this.mask
    return slot
  }

  add(high: number, low: number): void {
    const slot = this.slotFor(high, low)
    if (this.high[slot] === high && this.low[slot] === low) return
    if (3 * ++this.count > 2 * this.mask) throw new Error('there is no room for so many positions')
    this.high[slot] = high
    this.low[slot] = low
  }

  has(high: number, low: number): boolean {
    const slot = this.slotFor(high, low)
    return this.high[slot] === high && this.low[slot] === low
  }
}

type Hear = (high: number, low: number, depth: number, path: Int16Array) => void

/** All rows of turns, none of which can be left out or exchanged with the one before. */
class Walk {
  readonly keys: Keys
  private readonly tables: readonly Uint8Array[]
  private readonly idle: readonly Uint8Array[]
  private readonly high: Int32Array
  private readonly low: Int32Array
  private readonly size: number

  constructor(puzzle: Puzzle, { turns, room }: Halves) {
    this.size = puzzle.pieces.length
    this.keys = new Keys(room)
    this.tables = turns.map(({ grip, rotation }) =>
      puzzle.carry[grip].map((carried, at) =>
        carried === IN
          ? PRODUCT[ROTATION_COUNT * rotation + (at % ROTATION_COUNT)]
          : at % ROTATION_COUNT,
      ),
    )
    this.idle = turns.map((first) =>
      Uint8Array.from(turns, (second) =>
        Number(
          first.grip === second.grip ||
            (isParallel(puzzle, first, second) && second.grip < first.grip),
        ),
      ),
    )
    const { look } = keysOf(puzzle)
    this.high = Int32Array.from(puzzle.look, (each) => look.high[each])
    this.low = Int32Array.from(puzzle.look, (each) => look.low[each])
  }

  keyOf(state: State): [number, number] {
    let [high, low] = [0, 0]
    state.forEach((r, p) => {
      high ^= this.high[ROTATION_COUNT * p + r]
      low ^= this.low[ROTATION_COUNT * p + r]
    })
    return [high, low]
  }

  /** Hears of what every row of up to so many turns leads to; of none at all if it is of none. */
  through(from: State, most: number, hear: Hear): void {
    const path = new Int16Array(most)
    const [high, low] = this.keyOf(from)
    if (most === 0) return hear(high, low, 0, path)
    const stack = Array.from({ length: most + 1 }, () => new Uint8Array(this.size))
    stack[0].set(from)
    this.step(stack, path, 0, high, low, hear)
  }

  private step(
    stack: readonly Uint8Array[],
    path: Int16Array,
    depth: number,
    high: number,
    low: number,
    hear: Hear,
  ): void {
    const { size, tables } = this
    const [from, into] = [stack[depth], stack[depth + 1]]
    const idle = depth > 0 ? this.idle[path[depth - 1]] : undefined
    const isLast = depth + 1 === path.length
    for (let t = 0; t < tables.length; t++) {
      if (idle?.[t]) continue
      const table = tables[t]
      let [nextHigh, nextLow] = [high, low]
      for (let p = 0, at = 0; p < size; p++, at += ROTATION_COUNT) {
        const r = from[p]
        const next = table[at + r]
        into[p] = next
        if (next === r) continue
        nextHigh ^= this.high[at + r] ^ this.high[at + next]
        nextLow ^= this.low[at + r] ^ this.low[at + next]
      }
      path[depth] = t
      hear(nextHigh, nextLow, depth + 1, path)
      if (!isLast) this.step(stack, path, depth + 1, nextHigh, nextLow, hear)
    }
  }
}
