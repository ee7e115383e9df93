/**
 * Distances of all states of a small puzzle from the finished one, by breadth-first search over the
 * product of its coordinates: one byte a state, 255 where no turns lead. A tip that is off costs one turn
 * more, whatever else is done.
 */
import { tipTurns } from '../analysis/tips'
import type { Puzzle, Turn } from '../puzzle/compile'
import { start, type State } from '../state'
import { fail, must, ok, type Result } from '../result'
import { coordinatesOf, type Coordinates } from './coordinates'

/** Half turns count one, or two. */
export type Metric = 'half' | 'quarter'

export interface DistanceTable {
  readonly metric: Metric
  readonly coordinates: Coordinates
  /** The frame turns that count one in this metric, as positions in `coordinates.turns`. */
  readonly turnIndices: readonly number[]
  readonly distances: Uint8Array
  /** How many states stand at each distance. */
  readonly counts: readonly number[]
}

/** Largest product of coordinates for which a table is built. */
export const STATE_LIMIT = 20_000_000

export const UNREACHED = 255

/**
 * @param progress called a few times with the share done, 0 to 1; may throw to cancel.
 */
export function buildDistanceTable(
  puzzle: Puzzle,
  metric: Metric,
  progress: (share: number) => void = () => undefined,
): Result<DistanceTable> {
  const coordinates = coordinatesOf(puzzle)
  if (coordinates.size > STATE_LIMIT)
    return fail(
      'too-large',
      `This puzzle has more than ${STATE_LIMIT} states, too many for a table of them all.`,
    )
  const turnIndices = coordinates.turns.flatMap((turn, i) =>
    metric === 'half' || turn.amount !== 2 ? [i] : [],
  )
  const distances = new Uint8Array(coordinates.size).fill(UNREACHED)
  const { high, low, lowSize } = halve(coordinates, turnIndices)
  const first = coordinates.indexOf(start(puzzle))
  distances[first] = 0
  let frontier = 1
  let reached = 1
  const counts: number[] = []
  for (let distance = 0; frontier > 0; distance++) {
    counts.push(frontier)
    frontier = 0
    // Scanning the whole table keeps memory access in order, which beats a queue.
    for (let a = 0, base = 0; base < distances.length; a++, base += lowSize)
      for (let b = 0; b < lowSize; b++) {
        if (distances[base + b] !== distance) continue
        for (let t = 0; t < high.length; t++) {
          const index = high[t][a] + low[t][b]
          if (distances[index] !== UNREACHED) continue
          distances[index] = distance + 1
          frontier++
        }
      }
    reached += frontier
    progress(reached / distances.length)
  }
  return ok({ metric, coordinates, turnIndices, distances, counts })
}

const tables = new WeakMap<Puzzle, DistanceTable>()

/** The table of all states in half turns, built once. Throws if the puzzle is too large. */
export function halfTurnTable(puzzle: Puzzle, progress?: (share: number) => void): DistanceTable {
  let table = tables.get(puzzle)
  if (!table) {
    table = must(buildDistanceTable(puzzle, 'half', progress))
    tables.set(puzzle, table)
  }
  return table
}

/** Values of the last coordinates, joined, at least so many: long inner loops are quicker. */
const LOW_SIZE = 256

/**
 * The last coordinates as one, and all others as one, these multiplied by the size of the last already.
 */
function halve({ parts, size }: Coordinates, turnIndices: readonly number[]) {
  let first = parts.length - 1
  let lowSize = parts[first].size
  while (first > 0 && lowSize < LOW_SIZE) lowSize *= parts[--first].size
  const joined = (own: Coordinates['parts'], t: number) =>
    own.reduce((table, part) => {
      const next = new Uint32Array(table.length * part.size)
      for (let i = 0; i < next.length; i++)
        next[i] = table[Math.floor(i / part.size)] * part.size + part.after[t][i % part.size]
      return next
    }, Uint32Array.of(0))
  const high = turnIndices.map((t) =>
    joined(parts.slice(0, first), t).map((value) => value * lowSize),
  )
  const low = turnIndices.map((t) => joined(parts.slice(first), t))
  if (high.some(({ length }) => length * lowSize !== size))
    throw new Error('the coordinates do not multiply up')
  return { high, low, lowSize }
}

export const distanceOf = (puzzle: Puzzle, table: DistanceTable, state: State): number =>
  table.distances[table.coordinates.indexOf(state)] + tipTurns(puzzle, state).length

/**
 * Every shortest sequence of frame turns for a state held with the frame piece home, up to `limit`
 * sequences.
 */
export function shortestSequences(
  puzzle: Puzzle,
  table: DistanceTable,
  state: State,
  limit = 200,
): Turn[][] {
  const { coordinates, distances, turnIndices } = table
  const tips = tipTurns(puzzle, state)
  const found: Turn[][] = []
  const path: Turn[] = []
  const visit = (index: number) => {
    if (found.length >= limit) return
    const distance = distances[index]
    if (distance === 0) {
      found.push([...path, ...tips])
      return
    }
    for (const t of turnIndices) {
      const next = step(coordinates, index, t)
      if (distances[next] !== distance - 1) continue
      path.push(coordinates.turns[t])
      visit(next)
      path.pop()
    }
  }
  visit(coordinates.indexOf(state))
  return found
}

function step({ parts }: Coordinates, index: number, t: number): number {
  let result = 0
  let weight = 1
  for (let i = parts.length - 1; i >= 0; i--) {
    const { size, after } = parts[i]
    result += weight * after[t][index % size]
    weight *= size
    index = Math.floor(index / size)
  }
  return result
}
