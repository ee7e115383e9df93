/**
 * Random numbers for the looks and slots of a puzzle's pieces: a position is known by their sum without carry
 * (Zobrist 1970). A look tells its place, so the sum is what the eye sees, whichever of equal pieces shows it.
 * Two positions with one key of 64 bits are next to impossible, and what a search finds is made on the engine
 * before it is believed.
 */
import type { Puzzle } from '../puzzle/compile'
import { seededRandom } from '../random'

export interface Keys {
  readonly high: Int32Array
  readonly low: Int32Array
}

interface AllKeys {
  readonly look: Keys
  readonly slot: Keys
  /** Of every piece in every rotation. */
  readonly placement: Keys
}

const known = new WeakMap<Puzzle, AllKeys>()

export function keysOf(puzzle: Puzzle): AllKeys {
  const found = known.get(puzzle)
  if (found) return found
  const random = seededRandom(20261125)
  const draw = (table: ArrayLike<number>): Keys => {
    const length = Array.from(table).reduce((most, value) => Math.max(most, value + 1), 0)
    const some = () =>
      Int32Array.from({ length }, () => random.below(2 ** 31) * 2 + random.below(2))
    return { high: some(), low: some() }
  }
  const keys = {
    look: draw(puzzle.look),
    slot: draw(puzzle.slot),
    placement: draw(Array.from(puzzle.look, (_, at) => at)),
  }
  known.set(puzzle, keys)
  return keys
}
