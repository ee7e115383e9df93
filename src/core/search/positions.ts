/**
 * Positions that a search has come to, layer by layer, in flat arrays: some millions of them have room. Each is known
 * by a key of 64 bits, and remembers from where and by which turn it was come to.
 */
const FIRST_ROOM = 1024

export class Positions {
  /** How many there are; the latest layer stands at the end. */
  count = 0
  /** How many are of the latest layer, and how many turns lead there. */
  front = 0
  depth = 0
  /** How many each of the layer before came to in the latest. */
  growth = 1
  /** Of all positions one after another, `size` each. */
  rotations: Uint8Array
  private sums = new Int32Array(FIRST_ROOM)
  private high = new Int32Array(FIRST_ROOM)
  private low = new Int32Array(FIRST_ROOM)
  private from = new Int32Array(FIRST_ROOM)
  private turns = new Int16Array(FIRST_ROOM)
  /** Open addressing: the number of a position and one more, 0 where nothing is. */
  private slots = new Int32Array(4 * FIRST_ROOM)

  /** @param size pieces of a position */
  constructor(private readonly size: number) {
    this.rotations = new Uint8Array(size * FIRST_ROOM)
  }

  /** Unless there is one of that key already. The first one is a layer by itself. */
  add(
    rotations: Uint8Array,
    sum: number,
    high: number,
    low: number,
    from: number,
    turn: number,
  ): void {
    const slot = this.slotFor(high, low)
    if (this.slots[slot] !== 0) return
    const at = this.count++
    this.slots[slot] = at + 1
    if (at === this.sums.length) this.makeRoom()
    this.rotations.set(rotations, at * this.size)
    this.sums[at] = sum
    this.high[at] = high
    this.low[at] = low
    this.from[at] = from
    this.turns[at] = turn
    if (at === 0) this.front = 1
    if (2 * this.count > this.slots.length) this.rehash()
  }

  /** What was added since there were `before` is the latest layer. */
  endLayer(before: number): void {
    const front = this.count - before
    this.growth = Math.max(1, front / Math.max(1, this.front))
    this.front = front
    this.depth++
  }

  /** The number of the position with a key, or -1. */
  at(high: number, low: number): number {
    return this.slots[this.slotFor(high, low)] - 1
  }

  keyOf(node: number): readonly [number, number] {
    return [this.high[node], this.low[node]]
  }

  sumOf(node: number): number {
    return this.sums[node]
  }

  fromOf(node: number): number {
    return this.from[node]
  }

  /** -1 of the first. */
  turnOf(node: number): number {
    return this.turns[node]
  }

  private slotFor(high: number, low: number): number {
    const mask = this.slots.length - 1
    let slot = (high ^ Math.imul(low, 0x9e3779b1)) & mask
    for (;;) {
      const node = this.slots[slot] - 1
      if (node < 0 || (this.high[node] === high && this.low[node] === low)) return slot
      slot = (slot + 1) & mask
    }
  }

  private makeRoom(): void {
    const room = 2 * this.sums.length
    const grown = <T extends Int32Array | Int16Array | Uint8Array>(array: T, made: T): T => {
      made.set(array)
      return made
    }
    this.rotations = grown(this.rotations, new Uint8Array(this.size * room))
    this.sums = grown(this.sums, new Int32Array(room))
    this.high = grown(this.high, new Int32Array(room))
    this.low = grown(this.low, new Int32Array(room))
    this.from = grown(this.from, new Int32Array(room))
    this.turns = grown(this.turns, new Int16Array(room))
  }

  private rehash(): void {
    this.slots = new Int32Array(2 * this.slots.length)
    for (let node = 0; node < this.count; node++)
      this.slots[this.slotFor(this.high[node], this.low[node])] = node + 1
  }
}
