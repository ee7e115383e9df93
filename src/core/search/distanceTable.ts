/**
 * Distances of all states of a small puzzle from the finished one, by breadth-first search over the
 * product of its coordinates: one byte a state, 255 where no turns lead. A tip that is off costs one turn
 * more, whatever else is done.
 */
import { unseenChanges } from '../analysis/lookAlikes'
import { orbitsWithoutTips, tipTurns } from '../analysis/tips'
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
 * @param homes the states that count as finished
 * @param progress called a few times with the share done, 0 to 1; may throw to cancel.
 */
export function buildDistanceTable(
  puzzle: Puzzle,
  metric: Metric,
  progress: (share: number) => void = () => undefined,
  homes: readonly State[] = [start(puzzle)],
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
  const steps = halve(coordinates, turnIndices)
  const firsts = new Set(homes.map((home) => coordinates.indexOf(home)))
  for (const first of firsts) distances[first] = 0
  let frontier = firsts.size
  let reached = frontier
  const counts: number[] = []
  for (let distance = 0; frontier > 0; distance++) {
    counts.push(frontier)
    // Turns come with their inverses: where fewer states are left than were just reached, those ask for a way back.
    frontier =
      distances.length - reached < frontier
        ? reachBackwards(distances, steps, distance)
        : reachForwards(distances, steps, distance)
    reached += frontier
    progress(reached / distances.length)
  }
  return ok({ metric, coordinates, turnIndices, distances, counts })
}

type Steps = ReturnType<typeof halve>

/** Marks what is one turn further than a distance; how many there are. Both scan the table in its order. */
function reachForwards(distances: Uint8Array, { high, low, lowSize }: Steps, distance: number) {
  let found = 0
  for (let a = 0, base = 0; base < distances.length; a++, base += lowSize)
    for (let b = 0; b < lowSize; b++) {
      if (distances[base + b] !== distance) continue
      for (let t = 0; t < high.length; t++) {
        const index = high[t][a] + low[t][b]
        if (distances[index] !== UNREACHED) continue
        distances[index] = distance + 1
        found++
      }
    }
  return found
}

function reachBackwards(distances: Uint8Array, { high, low, lowSize }: Steps, distance: number) {
  let found = 0
  for (let a = 0, base = 0; base < distances.length; a++, base += lowSize)
    for (let b = 0; b < lowSize; b++) {
      if (distances[base + b] !== UNREACHED) continue
      for (let t = 0; t < high.length; t++)
        if (distances[high[t][a] + low[t][b]] === distance) {
          distances[base + b] = distance + 1
          found++
          break
        }
    }
  return found
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

/** A state's look-alikes are told apart in at most so many ways. */
export const NAMINGS_LIMIT = 200_000

const lookTables = new WeakMap<Puzzle, DistanceTable>()

/**
 * The same as the eye sees it: every state that looks finished is home, whichever of equal pieces lie
 * where. The table of `halfTurnTable` itself where all pieces can be told apart.
 */
export function lookTable(puzzle: Puzzle, progress?: (share: number) => void): DistanceTable {
  const known = lookTables.get(puzzle)
  if (known) return known
  const homes = looksOfHome(puzzle)
  const table =
    homes.length === 1
      ? halfTurnTable(puzzle, progress)
      : must(buildDistanceTable(puzzle, 'half', progress, homes))
  lookTables.set(puzzle, table)
  return table
}

/** All states that look like the finished puzzle and that the coordinates can tell apart. */
const looksOfHome = (puzzle: Puzzle): State[] => {
  const { indexOf } = coordinatesOf(puzzle)
  const homes = new Map<number, State>()
  for (const state of namingsOf(puzzle, start(puzzle))) {
    const index = indexOf(state)
    if (Number.isInteger(index) && !homes.has(index)) homes.set(index, state)
  }
  return [...homes.values()]
}

/** A state with its look-alikes told apart in every way, as given first. */
function* namingsOf(puzzle: Puzzle, given: State): Generator<State> {
  const orbits = orbitsWithoutTips(puzzle)
  const changes = unseenChanges(puzzle).filter(({ pieces }) =>
    orbits.some(({ places }) => pieces.every((p) => places.includes(p))),
  )
  const waiting = [given]
  const seen = new Set([given.join()])
  for (const state of waiting) {
    yield state
    for (const { make } of changes) {
      const next = make(state)
      if (seen.has(next.join())) continue
      if (seen.size >= NAMINGS_LIMIT) throw new Error('too many states look alike')
      seen.add(next.join())
      waiting.push(next)
    }
  }
}

/** A state in the frame, with its look-alikes told apart so that the table knows it, if it can be. */
export function knownToTable(
  puzzle: Puzzle,
  { coordinates, distances }: DistanceTable,
  given: State,
): State | undefined {
  for (const state of namingsOf(puzzle, given)) {
    const index = coordinates.indexOf(state)
    if (Number.isInteger(index) && distances[index] !== UNREACHED) return state
  }
  return undefined
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
