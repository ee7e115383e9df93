/**
 * A box as a smaller one: its middle layers never part, so what lies between the outer ones is one layer and the
 * pieces of each cell of the smaller box move as one. Where all of these lie together a state is one of the smaller
 * puzzle, and a turn of that one is a turn of the real one.
 */
import { compiledFrom, type Puzzle, type Turn } from '../puzzle/compile'
import { multiply, type Rotation, type Vector } from '../rotation'
import type { State } from '../state'
import { reachOf } from './placements'

export interface Joined {
  readonly small: Puzzle
  /** For each piece of the smaller puzzle the pieces that are joined into it. */
  readonly partsOf: readonly (readonly number[])[]
  /** For each piece the one of the smaller puzzle that it is part of. */
  readonly wholeOf: readonly number[]
  /** For each piece of the smaller puzzle the rotations that turns give it, in any hold. */
  readonly ways: readonly (readonly Rotation[])[]
  /** The turn that is made for one of the smaller puzzle. */
  readonly turnFor: (turn: Turn) => Turn
}

const known = new WeakMap<Puzzle, Map<string, Joined | undefined>>()

/** Undefined for other mechanisms, and where there is no such smaller box or it joins an even number of layers. */
export function joinedAs(puzzle: Puzzle, size: Vector): Joined | undefined {
  const sizes = known.get(puzzle) ?? new Map<string, Joined | undefined>()
  known.set(puzzle, sizes)
  const key = size.join()
  if (!sizes.has(key)) sizes.set(key, join(puzzle, size))
  return sizes.get(key)
}

function join({ definition, pieces, turns, grips }: Puzzle, size: Vector): Joined | undefined {
  const { mechanism, glue } = definition
  // A smaller box is not made smaller once more.
  if (mechanism.kind !== 'box' || mechanism.middles || glue.length > 0) return undefined
  const own = mechanism.size
  // What is joined lies between two outer layers.
  if (size.some((n, axis) => n > own[axis] || (n < own[axis] && (n % 2 === 0 || n < 3))))
    return undefined
  const middles = own.map((n, axis) => n - size[axis] + 1) as unknown as Vector
  const made = compiledFrom({
    ...definition,
    id: `${definition.id}-as-${size.join('x')}`,
    mechanism: { kind: 'box', size, middles },
  })
  if (!made.ok) return undefined
  const small = made.value
  const joinedCell = (cell: Vector) =>
    cell.map((c, axis) => (Math.abs(c) < middles[axis] / 2 && size[axis] % 2 === 1 ? 0 : c)).join()
  const wholes = new Map(small.pieces.map(({ cells: [cell] }, p) => [cell.join(), p]))
  const wholeOf = pieces.map(({ cells: [cell] }) => {
    const whole = wholes.get(joinedCell(cell))
    if (whole === undefined) throw new Error('a piece belongs to no piece of the smaller box')
    return whole
  })
  const partsOf = small.pieces.map((_, whole) =>
    pieces.flatMap((__, p) => (wholeOf[p] === whole ? [p] : [])),
  )
  const same = (a: Vector, b: Vector) => a.every((c, i) => c === b[i])
  const turnFor = small.turns.map(({ grip, amount }) => {
    const { axis, from, to } = small.grips[grip]
    const found = turns.filter(
      (turn) =>
        turn.amount === amount &&
        same(grips[turn.grip].axis, axis) &&
        grips[turn.grip].from === from &&
        grips[turn.grip].to === to,
    )
    return found.reduce<Turn | undefined>(
      (a, b) => (a && a.name.length <= b.name.length ? a : b),
      undefined,
    )
  })
  return {
    small,
    partsOf,
    wholeOf,
    ways: reachOf(small).map((reach) => [
      ...new Set(small.holds.flatMap((hold) => reach.map((r) => multiply(hold, r)))),
    ]),
    turnFor: (turn) => {
      const found = turnFor[turn.index]
      if (!found) throw new Error(`${turn.name} is no turn of the real puzzle`)
      return found
    },
  }
}

/**
 * The state of the smaller puzzle as it is seen: its pieces where parts that look like theirs lie together, equal
 * ones in any order, its own parts first. Undefined if some do not lie together.
 */
export function joinedState(puzzle: Puzzle, joined: Joined, state: State): State | undefined {
  const wholes = [...joined.small.pieces.keys()]
  const found = wholesIn(puzzle, joined, state, wholes)
  if (found.size < wholes.length) return undefined
  return Uint8Array.from(wholes, (whole) => found.get(whole) as Rotation)
}

/**
 * As many of some pieces of the smaller puzzle as are joined, each in a place of its own, with their rotations (a
 * matching of pieces and places, each found by a path that rearranges others).
 */
export function wholesIn(
  puzzle: Puzzle,
  joined: Joined,
  state: State,
  wholes: readonly number[],
): ReadonlyMap<number, Rotation> {
  const { small, partsOf } = joined
  const shown = shownIn(puzzle, state)
  const found = new Map<number, Rotation>()
  const taken = new Map<number, number>()
  const ways = new Map(
    wholes.map((whole) => {
      const own = state[partsOf[whole][0]]
      const all = togetherIn(puzzle, joined, shown, whole)
      return [whole, all.includes(own) ? [own, ...all.filter((r) => r !== own)] : all]
    }),
  )
  const settle = (whole: number, tried: Set<number>): boolean =>
    (ways.get(whole) ?? []).some((r) => {
      const place = small.slot[24 * whole + r]
      if (tried.has(place)) return false
      tried.add(place)
      const other = taken.get(place)
      if (other !== undefined && !settle(other, tried)) return false
      taken.set(place, whole)
      found.set(whole, r)
      return true
    })
  for (const whole of wholes) settle(whole, new Set())
  return found
}

/** For each slot what is seen there, 0 for nothing; looks count from 1. */
export function shownIn(puzzle: Puzzle, state: State): Uint16Array {
  const shown = new Uint16Array(puzzle.slotCount)
  for (let p = 0; p < state.length; p++)
    shown[puzzle.slot[24 * p + state[p]]] = 1 + puzzle.look[24 * p + state[p]]
  return shown
}

/** The rotations in which the parts of a piece of the smaller puzzle, or equals of theirs, lie together. */
export const togetherIn = (
  puzzle: Puzzle,
  { partsOf, ways }: Joined,
  shown: Uint16Array,
  whole: number,
): Rotation[] =>
  // Elsewhere parts of two can look like one.
  ways[whole].filter((r) => areTogetherIn(puzzle, shown, partsOf[whole], r))

export const areTogetherIn = (
  puzzle: Puzzle,
  shown: Uint16Array,
  parts: readonly number[],
  rotation: Rotation,
): boolean =>
  parts.every((p) => shown[puzzle.slot[24 * p + rotation]] === 1 + puzzle.look[24 * p + rotation])
