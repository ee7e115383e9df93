/**
 * Turns home for every picture of a puzzle that turns lead to, breadth first from the finished one. Pictures
 * are found by keys rather than by number, so turns may be blocked and orbits may hang together in any way;
 * look-alikes need not be told apart.
 */
import { frameOf } from '../analysis/frame'
import { canBlock } from '../analysis/placements'
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { blockOf, start, turnFreely, type State } from '../state'
import { keysOf } from './lookKeys'

const UNREACHED = 255
const FIRST_SIZE = 1 << 12
/** The table doubles when so much of it is filled. */
const FULL = 0.6

export class PictureTable {
  private size = FIRST_SIZE
  private high = new Int32Array(FIRST_SIZE)
  private low = new Int32Array(FIRST_SIZE)
  private distances = new Uint8Array(FIRST_SIZE).fill(UNREACHED)
  /** How many pictures there are. */
  count = 0

  private constructor(private readonly puzzle: Puzzle) {}

  /**
   * @param limit pictures at most
   * @param progress told with the pictures so far; may throw to cancel
   */
  static build(
    puzzle: Puzzle,
    limit: number,
    progress: (pictures: number) => void = () => undefined,
  ): Result<PictureTable> {
    const table = new PictureTable(puzzle)
    const { turns } = frameOf(puzzle)
    const isFree = canBlock(puzzle)
      ? (state: State, turn: Turn) => blockOf(puzzle, state, turn) === undefined
      : () => true
    const n = puzzle.pieces.length
    let front = new Frontier(n)
    front.push(start(puzzle))
    table.add(start(puzzle), 0)
    const next = new Uint8Array(n)
    for (let distance = 1; front.count > 0; distance++) {
      const grown = new Frontier(n)
      for (let i = 0; i < front.count; i++) {
        if (i % 50_000 === 0) progress(table.count)
        const state = front.at(i)
        for (const turn of turns) {
          if (!isFree(state, turn)) continue
          turnFreely(puzzle, state, turn, next)
          if (!table.add(next, distance)) continue
          if (table.count > limit)
            return fail('too-large', `This puzzle looks different in more than ${limit} ways.`)
          grown.push(next)
        }
      }
      front = grown
    }
    return ok(table)
  }

  /** Turns home of a state in the frame; undefined where no turns lead. */
  distanceOf(state: State): number | undefined {
    const distance = this.distances[this.find(...this.key(state))]
    return distance === UNREACHED ? undefined : distance
  }

  /** Sequences of frame turns home, all of the fewest turns, up to `limit`; undefined where none lead. */
  shortest(state: State, limit: number): Turn[][] | undefined {
    if (this.distanceOf(state) === undefined) return undefined
    const { puzzle } = this
    const found: Turn[][] = []
    const path: Turn[] = []
    const visit = (now: State, distance: number) => {
      if (found.length >= limit) return
      if (distance === 0) return void found.push([...path])
      for (const turn of frameOf(puzzle).turns) {
        if (blockOf(puzzle, now, turn)) continue
        const next = turnFreely(puzzle, now, turn, new Uint8Array(now.length))
        if (this.distanceOf(next) !== distance - 1) continue
        path.push(turn)
        visit(next, distance - 1)
        path.pop()
      }
    }
    visit(state, this.distanceOf(state) as number)
    return found
  }

  private key(state: State): [number, number] {
    const { look } = keysOf(this.puzzle)
    let [high, low] = [0, 0]
    for (let p = 0; p < state.length; p++) {
      const seen = this.puzzle.look[24 * p + state[p]]
      high ^= look.high[seen]
      low ^= look.low[seen]
    }
    return [high, low]
  }

  /** Where a key is, or where there is room for it. */
  private find(high: number, low: number): number {
    const mask = this.size - 1
    let at = high & mask
    while (this.distances[at] !== UNREACHED && (this.high[at] !== high || this.low[at] !== low))
      at = (at + 1) & mask
    return at
  }

  /** False if the picture is there already. */
  private add(state: State, distance: number): boolean {
    const [high, low] = this.key(state)
    const at = this.find(high, low)
    if (this.distances[at] !== UNREACHED) return false
    this.put(at, high, low, distance)
    if (++this.count > FULL * this.size) this.double()
    return true
  }

  private put(at: number, high: number, low: number, distance: number): void {
    this.high[at] = high
    this.low[at] = low
    this.distances[at] = distance
  }

  private double(): void {
    const { high, low, distances } = this
    this.size *= 2
    this.high = new Int32Array(this.size)
    this.low = new Int32Array(this.size)
    this.distances = new Uint8Array(this.size).fill(UNREACHED)
    for (let i = 0; i < distances.length; i++)
      if (distances[i] !== UNREACHED)
        this.put(this.find(high[i], low[i]), high[i], low[i], distances[i])
  }
}

/** States one after the other in one array. */
class Frontier {
  count = 0
  private states: Uint8Array

  constructor(private readonly length: number) {
    this.states = new Uint8Array(64 * length)
  }

  push(state: State): void {
    const from = this.count * this.length
    if (from + this.length > this.states.length) {
      const longer = new Uint8Array(2 * this.states.length)
      longer.set(this.states)
      this.states = longer
    }
    this.states.set(state, from)
    this.count++
  }

  at(i: number): State {
    return this.states.subarray(i * this.length, (i + 1) * this.length)
  }
}
