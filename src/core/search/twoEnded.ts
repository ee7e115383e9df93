/**
 * Two-ended search over the pieces that matter: from where they are, and from home, turn by turn until the
 * two meet. Other pieces go wherever they go, but what a sequence adds to a sum can be asked to be nothing.
 * Where turns can be blocked, the pieces that decide it go along on both sides, whichever they are.
 */
import { decidersOf, isBlocked } from '../analysis/deciders'
import { isParallel } from '../notation/rewrite'
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { IDENTITY, PRODUCT, ROTATION_COUNT } from '../rotation'
import { looksHome, turnFreely, type State } from '../state'
import { keysOf } from './lookKeys'
import { Positions } from './positions'

/** Positions that are grown from between two rests. */
const BETWEEN_RESTS = 1000

/** Sequences of one length that are judged at most. */
const JUDGED = 300

/** Something that every turn adds to, numbered. */
export interface Tally {
  readonly plus: (sum: number, turn: Turn) => number
  /** Equal for sums that the eye cannot tell apart. */
  readonly seen: (sum: number) => number
}

export interface Search {
  /** Pieces that must look home at the end. */
  readonly pieces: readonly number[]
  /** In shape. */
  readonly state: State
  /** Whether they must be home, not only look so: equal pieces are told apart then, and turns that do not show. */
  readonly isExact?: boolean
  /** That may be made, with each its inverse. */
  readonly turns: readonly Turn[]
  /** Turns of a sequence. */
  readonly most: number
  /** How many sequences, all of the fewest turns that were found. */
  readonly ways: number
  /** Positions that are kept on each side: none is grown any more from a side with more. */
  readonly kept: number
  /**
   * If given, no more than these are ever kept, and the search goes on without keeping any, turn by turn from one side,
   * so many turns far.
   */
  readonly beyond?: number
  /** What a sequence must add nothing to, as it is seen. */
  readonly tally?: Tally
  /** Judges a sequence as a whole. */
  readonly accepts?: (way: readonly Turn[]) => boolean
  /** Called every few milliseconds; true ends the search. */
  readonly rest?: () => Promise<boolean>
  /** Hears of how many turns no sequence is, whenever it is sure of one more. */
  readonly onNone?: (turns: number) => void
}

const NO_TALLY: Tally = { plus: () => 0, seen: () => 0 }

/** Sequences of the fewest turns that do what is asked; none if there are none, or if it was ended. */
export async function shortestFor(puzzle: Puzzle, search: Search): Promise<Turn[][]> {
  return new TwoEnded(puzzle, search).run()
}

class TwoEnded {
  // In shape every place is filled, so whichever pieces are taken for those that decide will do.
  private readonly deciders: readonly number[]
  private readonly tracked: readonly number[]
  private readonly tally: Tally
  /** By turn: `[24 * position among the tracked + rotation]`, the rotation after it. */
  private readonly tables: readonly Uint8Array[]
  /** Keys of each of the tracked in each rotation, as the tables are laid out. */
  private readonly high: Int32Array
  private readonly low: Int32Array
  /** Turns that need not follow a turn: of its own layer, and of two that can be exchanged the later ones. */
  private readonly idle: readonly Uint8Array[]
  private readonly there: Positions
  private readonly home: Positions
  /** What a turn makes of a position: its rotations, sum and key. */
  private readonly next: Uint8Array
  private sum = 0
  private keyHigh = 0
  private keyLow = 0
  private readonly found = new Map<string, Turn[]>()
  private judged = 0
  private isEnded = false
  private untilRest = BETWEEN_RESTS

  constructor(
    private readonly puzzle: Puzzle,
    private readonly search: Search,
  ) {
    const { pieces, state, turns, isExact = false, tally = NO_TALLY } = search
    this.deciders = decidersOf(puzzle)
    this.tracked = [...pieces, ...this.deciders]
    this.tally = tally
    this.tables = turns.map((turn) => this.tableOf(turn))
    const { look, slot, placement: each } = keysOf(puzzle)
    const keys = (of: 'high' | 'low') =>
      Int32Array.from({ length: ROTATION_COUNT * this.tracked.length }, (_, at) => {
        const i = Math.floor(at / ROTATION_COUNT)
        const placement = ROTATION_COUNT * this.tracked[i] + (at % ROTATION_COUNT)
        if (i >= pieces.length) return slot[of][puzzle.slot[placement]]
        return isExact ? each[of][placement] : look[of][puzzle.look[placement]]
      })
    this.high = keys('high')
    this.low = keys('low')
    this.idle = turns.map((first) =>
      Uint8Array.from(turns, (second) => Number(this.isIdle(first, second))),
    )
    this.next = new Uint8Array(this.tracked.length)
    const begun = (rotationOf: (p: number, i: number) => number) => {
      const positions = new Positions(this.tracked.length)
      this.next.set(this.tracked.map(rotationOf))
      this.sum = 0
      this.setKey()
      positions.add(this.next, this.sum, this.keyHigh, this.keyLow, -1, -1)
      return positions
    }
    this.there = begun((p, i) => (i < pieces.length ? state[p] : 0))
    this.home = begun(() => 0)
  }

  async run(): Promise<Turn[][]> {
    const { most, ways, kept, beyond = 0, onNone = () => undefined } = this.search
    const { there, home } = this
    this.meet(there, home)
    let isFull = false
    while (this.found.size === 0 && there.depth + home.depth < most) {
      const [side, other] = there.front <= home.front ? [there, home] : [home, there]
      if (side.front === 0) break
      isFull = beyond > 0 ? side.count + side.front * side.growth > kept : side.count > kept
      if (isFull) break
      await this.grow(side)
      if (this.isEnded) break
      this.meet(side, other)
      if (this.found.size === 0) onNone(there.depth + home.depth)
    }
    if (isFull && beyond > 0 && !this.isEnded) await this.goBeyond(beyond)
    return [...this.found.values()].slice(0, ways)
  }

  private tableOf(turn: Turn): Uint8Array {
    const carry = this.puzzle.carry[turn.grip]
    return Uint8Array.from({ length: ROTATION_COUNT * this.tracked.length }, (_, at) => {
      const r = at % ROTATION_COUNT
      const piece = this.tracked[Math.floor(at / ROTATION_COUNT)]
      return carry[ROTATION_COUNT * piece + r] === IN
        ? PRODUCT[ROTATION_COUNT * turn.rotation + r]
        : r
    })
  }

  private isIdle(first: Turn, second: Turn): boolean {
    if (first.grip === second.grip) return true
    // Where turns can be blocked the one order may be free and the other not.
    const canExchange = this.deciders.length === 0 && isParallel(this.puzzle, first, second)
    return canExchange && second.grip < first.grip
  }

  private setKey(): void {
    const seen = this.tally.seen(this.sum) + 1
    let high = Math.imul(seen, 0x9e3779b1)
    let low = Math.imul(seen, 0x85ebca6b)
    for (let i = 0; i < this.next.length; i++) {
      const at = ROTATION_COUNT * i + this.next[i]
      high ^= this.high[at]
      low ^= this.low[at]
    }
    this.keyHigh = high
    this.keyLow = low
  }

  /** Makes a turn of what lies at an offset; false where it is blocked. */
  private turned(from: Uint8Array, offset: number, sum: number, t: number): boolean {
    const { next, deciders } = this
    const length = next.length
    if (
      deciders.length > 0 &&
      isBlocked(this.puzzle, deciders, from.subarray(offset, offset + length), this.search.turns[t])
    )
      return false
    const table = this.tables[t]
    for (let i = 0; i < length; i++) next[i] = table[ROTATION_COUNT * i + from[offset + i]]
    this.sum = this.tally.plus(sum, this.search.turns[t])
    this.setKey()
    return true
  }

  /** Whether it shall end: asked after every so many positions. */
  private async rests(positions: number): Promise<boolean> {
    this.untilRest -= positions
    if (this.untilRest > 0) return false
    this.untilRest = BETWEEN_RESTS
    const { rest } = this.search
    if (rest && (await rest())) this.isEnded = true
    return this.isEnded
  }

  private async grow(side: Positions): Promise<void> {
    const { turns } = this.search
    const [begin, end] = [side.count - side.front, side.count]
    for (let node = begin; node < end; node++) {
      if (await this.rests(1)) return
      const last = side.turnOf(node)
      for (let t = 0; t < turns.length; t++) {
        if (last >= 0 && this.idle[last][t]) continue
        // The store may have grown meanwhile, so what it holds is asked for anew.
        if (!this.turned(side.rotations, node * this.next.length, side.sumOf(node), t)) continue
        side.add(this.next, this.sum, this.keyHigh, this.keyLow, node, t)
      }
    }
    side.endLayer(end)
  }

  private meet(side: Positions, other: Positions): void {
    for (let node = side.count - side.front; node < side.count; node++) {
      const across = other.at(...side.keyOf(node))
      if (across < 0) continue
      this.judge(side, this.pathTo(side, node), this.pathTo(other, across))
      if (this.isEnough) return
    }
  }

  private get isEnough(): boolean {
    return this.found.size >= this.search.ways || this.judged >= JUDGED
  }

  /** A way from one side to where it met the other. */
  private judge(side: Positions, path: readonly number[], across: readonly number[]): void {
    const { turns, accepts = () => true } = this.search
    const [fromThere, fromHome] = side === this.there ? [path, across] : [across, path]
    const back = [...fromHome].reverse().map((t) => this.puzzle.turns[turns[t].inverse])
    const way = [...fromThere.map((t) => turns[t]), ...back]
    this.judged++
    if (this.leadsHome(way) && accepts(way))
      this.found.set(way.map(({ index }) => index).join(), way)
  }

  private leadsHome(way: readonly Turn[]): boolean {
    const { state, pieces, isExact } = this.search
    const end = way.reduce<State>(
      (now, turn) => turnFreely(this.puzzle, now, turn, now),
      state.slice(),
    )
    return pieces.every((p) => (isExact ? end[p] === IDENTITY : looksHome(this.puzzle, p, end[p])))
  }

  /** Positions among the turns, in the order in which they were made. */
  private pathTo(side: Positions, node: number): number[] {
    const path: number[] = []
    for (let at = node; side.turnOf(at) >= 0; at = side.fromOf(at)) path.push(side.turnOf(at))
    return path.reverse()
  }

  /** Turn by turn beyond the side that has fewer positions to go on from, nothing kept. */
  private async goBeyond(far: number): Promise<void> {
    const { there, home } = this
    const { most, onNone = () => undefined } = this.search
    const [side, other] = there.front <= home.front ? [there, home] : [home, there]
    const size = this.next.length
    for (let more = 1; more <= far && there.depth + home.depth + more <= most; more++) {
      const stack = Array.from({ length: more }, () => new Uint8Array(size))
      for (let node = side.count - side.front; node < side.count; node++) {
        if (await this.rests(1)) return
        const from = side.rotations.subarray(node * size, (node + 1) * size)
        this.walk(side, other, node, from, side.sumOf(node), side.turnOf(node), [], stack)
        if (this.isEnough) return
      }
      if (this.found.size > 0) return
      onNone(there.depth + home.depth + more)
    }
  }

  private walk(
    side: Positions,
    other: Positions,
    node: number,
    from: Uint8Array,
    sum: number,
    last: number,
    made: readonly number[],
    stack: readonly Uint8Array[],
  ): void {
    const [here, ...deeper] = stack
    const { turns } = this.search
    this.untilRest--
    for (let t = 0; t < turns.length; t++) {
      if (last >= 0 && this.idle[last][t]) continue
      if (!this.turned(from, 0, sum, t)) continue
      if (deeper.length > 0) {
        here.set(this.next)
        this.walk(side, other, node, here, this.sum, t, [...made, t], deeper)
      } else {
        const across = other.at(this.keyHigh, this.keyLow)
        if (across >= 0)
          this.judge(side, [...this.pathTo(side, node), ...made, t], this.pathTo(other, across))
      }
      if (this.isEnough) return
    }
  }
}
