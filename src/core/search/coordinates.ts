/**
 * Coordinates: what a state is in one respect (the arrangement of one orbit, or its orientations),
 * numbered from 0, with the effect of every frame turn tabulated. The states of a small puzzle are
 * numbered by the product of its coordinates. Tips are left out.
 */
import { frameOf, inFrame } from '../analysis/frame'
import { movedPlace, type Orbit } from '../analysis/orbits'
import { orbitsWithoutTips } from '../analysis/tips'
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { INVERSE, multiply, ROTATION_COUNT } from '../rotation'
import { placeOf, type State } from '../state'

interface Coordinate {
  readonly size: number
  /** For each frame turn, the value after it. */
  readonly after: readonly Uint32Array[]
  readonly valueOf: (state: State) => number
  /** Writes the rotations that a value fixes, given what earlier coordinates have written. */
  readonly write: (value: number, state: State) => void
}

export interface Coordinates {
  readonly turns: readonly Turn[]
  readonly parts: readonly Coordinate[]
  /** Product of the sizes; not every product need be reachable. */
  readonly size: number
  /** The number of a state, whatever its hold. */
  readonly indexOf: (state: State) => number
  /** The state with that number, frame piece and tips home. */
  readonly stateAt: (index: number) => State
}

const known = new WeakMap<Puzzle, Coordinates>()

export function coordinatesOf(puzzle: Puzzle): Coordinates {
  const found = known.get(puzzle)
  if (found) return found
  const { turns } = frameOf(puzzle)
  const parts = orbitsWithoutTips(puzzle).flatMap((orbit) => [
    arrangement(puzzle, orbit, turns),
    orientation(puzzle, orbit, turns),
  ])
  const coordinates: Coordinates = {
    turns,
    parts,
    size: parts.reduce((product, part) => product * part.size, 1),
    indexOf(state) {
      const held = inFrame(puzzle, state)
      return parts.reduce((index, part) => index * part.size + part.valueOf(held), 0)
    },
    stateAt(index) {
      const values = new Array<number>(parts.length)
      for (let i = parts.length - 1; i >= 0; i--) {
        values[i] = index % parts[i].size
        index = Math.floor(index / parts[i].size)
      }
      const state = new Uint8Array(puzzle.pieces.length)
      parts.forEach((part, i) => part.write(values[i], state))
      return state
    },
  }
  known.set(puzzle, coordinates)
  return coordinates
}

/**
 * Numbers the vectors that the turns reach from the first, breadth first. The entries are below
 * `radix`; short vectors are looked up in an array, long ones in a map.
 */
function enumerate(
  first: number[],
  radix: number,
  turns: readonly ((vector: number[]) => number[])[],
) {
  const numbers = radix ** first.length <= ARRAY_LIMIT ? arrayIndex(radix, first) : mapIndex()
  const vectors = [first]
  numbers.set(first, 0)
  const after = turns.map(() => [] as number[])
  for (let i = 0; i < vectors.length; i++)
    turns.forEach((turn, t) => {
      const next = turn(vectors[i])
      let number = numbers.get(next)
      if (number === undefined) {
        number = vectors.length
        numbers.set(next, number)
        vectors.push(next)
      }
      after[t].push(number)
    })
  return {
    vectors,
    after: after.map((values) => Uint32Array.from(values)),
    /** NaN for a vector that no turns reach. */
    numberOf: (vector: readonly number[]) => numbers.get(vector) ?? NaN,
  }
}

const ARRAY_LIMIT = 1 << 22

interface VectorIndex {
  get(vector: readonly number[]): number | undefined
  set(vector: readonly number[], number: number): void
}

function arrayIndex(radix: number, { length }: readonly number[]): VectorIndex {
  const numbers = new Int32Array(radix ** length).fill(-1)
  const pack = (vector: readonly number[]) => {
    let packed = 0
    for (let i = 0; i < length; i++) packed = packed * radix + vector[i]
    return packed
  }
  return {
    get: (vector) => {
      const number = numbers[pack(vector)]
      return number < 0 ? undefined : number
    },
    set: (vector, number) => (numbers[pack(vector)] = number),
  }
}

function mapIndex(): VectorIndex {
  const numbers = new Map<string, number>()
  const key = (vector: readonly number[]) => String.fromCharCode(...vector)
  return {
    get: (vector) => numbers.get(key(vector)),
    set: (vector, number) => void numbers.set(key(vector), number),
  }
}

/** Which piece fills each place of the orbit. */
function arrangement(puzzle: Puzzle, orbit: Orbit, turns: readonly Turn[]): Coordinate {
  const { places, reference } = orbit
  const moved = turns.map((turn) =>
    places.map((place) => places.indexOf(movedPlace(puzzle, turn, place))),
  )
  const { vectors, after, numberOf } = enumerate(
    places.map((_, i) => i),
    places.length,
    moved.map((to) => (vector: number[]) => {
      const next = new Array<number>(vector.length)
      vector.forEach((piece, i) => (next[to[i]] = piece))
      return next
    }),
  )
  const filled = placesFilled(puzzle, orbit)
  const vector = new Array<number>(places.length).fill(0)
  return {
    size: vectors.length,
    after,
    valueOf(state) {
      for (let i = 0; i < places.length; i++) vector[filled[24 * i + state[places[i]]]] = i
      return numberOf(vector)
    },
    write(value, state) {
      vectors[value].forEach(
        (piece, i) => (state[places[piece]] = multiply(reference[i], INVERSE[reference[piece]])),
      )
    },
  }
}

/** How the piece in each place is oriented, whichever it is. */
function orientation(puzzle: Puzzle, orbit: Orbit, turns: readonly Turn[]): Coordinate {
  const { places, reference, orientations } = orbit
  const effects = turns.map((turn) =>
    places.map((place, i) => {
      const to = places.indexOf(movedPlace(puzzle, turn, place))
      const isIn = puzzle.carry[turn.grip][24 * place] === IN
      const carried = isIn ? multiply(turn.rotation, reference[i]) : reference[i]
      return { to, change: multiply(INVERSE[reference[to]], carried) }
    }),
  )
  const { vectors, after, numberOf } = enumerate(
    places.map(() => 0),
    orientations.length,
    effects.map((effect) => (vector: number[]) => {
      const next = new Array<number>(vector.length)
      vector.forEach((o, i) => {
        const { to, change } = effect[i]
        next[to] = orientations.indexOf(multiply(change, orientations[o]))
      })
      return next
    }),
  )
  const filled = placesFilled(puzzle, orbit)
  const oriented = places.flatMap((_, p) =>
    Array.from({ length: ROTATION_COUNT }, (_, r) => {
      const q = filled[24 * p + r]
      return q === OUTSIDE
        ? -1
        : orientations.indexOf(multiply(INVERSE[reference[q]], multiply(r, reference[p])))
    }),
  )
  const vector = new Array<number>(places.length).fill(0)
  return {
    size: vectors.length,
    after,
    valueOf(state) {
      for (let p = 0; p < places.length; p++) {
        const at = 24 * p + state[places[p]]
        vector[filled[at]] = oriented[at]
      }
      return numberOf(vector)
    },
    write(value, state) {
      // The arrangement stands already, so each piece tells the place that it fills.
      places.forEach((piece, p) => {
        const q = places.indexOf(placeOf(puzzle, state, piece))
        const turned = orientations[vectors[value][q]]
        state[piece] = multiply(reference[q], multiply(turned, INVERSE[reference[p]]))
      })
    },
  }
}

const OUTSIDE = 255

/** `[24 * i + rotation]`: which place of the orbit (by position) its i-th piece then fills. */
function placesFilled(puzzle: Puzzle, { places }: Orbit): Uint8Array {
  return Uint8Array.from({ length: places.length * ROTATION_COUNT }, (_, at) => {
    const position = places.indexOf(puzzle.place[24 * places[Math.floor(at / 24)] + (at % 24)])
    return position < 0 ? OUTSIDE : position
  })
}
