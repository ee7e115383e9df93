/**
 * Look-alikes, read off the outlines: pieces that can fill each other's places unseen, and turns of a
 * piece in place that change nothing to the eye.
 */
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import { reachOf } from './placements'

export interface LookAlikes {
  /** Classes of pieces that look the same in each other's places, each with two or more. */
  readonly classes: readonly (readonly number[])[]
  /** For each piece the rotations in place that look like the identity, which is first. */
  readonly unseen: readonly (readonly Rotation[])[]
  /** For each piece the number of ways it can be turned in place, and of those that differ in look. */
  readonly inPlace: readonly { readonly ways: number; readonly looks: number }[]
}

const known = new WeakMap<Puzzle, LookAlikes>()

export function lookAlikesOf(puzzle: Puzzle): LookAlikes {
  const found = known.get(puzzle)
  if (found) return found
  const reach = reachOf(puzzle)
  const { pieces, slot, look } = puzzle
  const unseen = pieces.map((_, p) =>
    reach[p].filter((r) => slot[24 * p + r] === p && look[24 * p + r] === look[24 * p]),
  )
  const inPlace = pieces.map((_, p) => {
    const own = reach[p].filter((r) => slot[24 * p + r] === p)
    return { ways: own.length, looks: new Set(own.map((r) => look[24 * p + r])).size }
  })
  const seen = new Set<number>()
  const classes: number[][] = []
  pieces.forEach((_, p) => {
    if (seen.has(p)) return
    const alike = pieces.flatMap((__, q) => (replaces(puzzle, q, p) ? [q] : []))
    alike.forEach((q) => seen.add(q))
    if (alike.length > 1) classes.push(alike)
  })
  const result = { classes, unseen, inPlace }
  known.set(puzzle, result)
  return result
}

/** The rotation in which one piece looks as the other does at home, if it can get there. */
export const replacing = (puzzle: Puzzle, piece: number, other: number): Rotation | undefined =>
  reachOf(puzzle)[piece].find(
    (r) =>
      puzzle.slot[24 * piece + r] === other &&
      puzzle.look[24 * piece + r] === puzzle.look[24 * other],
  )

const replaces = (puzzle: Puzzle, piece: number, other: number): boolean =>
  replacing(puzzle, piece, other) !== undefined

export interface LookClasses {
  /** For each piece the first of those that look like it. */
  readonly classOf: readonly number[]
  /** For such a first piece how many they are; 0 for the others. */
  readonly classSize: readonly number[]
}

const knownClasses = new WeakMap<Puzzle, LookClasses>()

/** Every piece in one class, most of them alone. */
export function lookClassesOf(puzzle: Puzzle): LookClasses {
  const found = knownClasses.get(puzzle)
  if (found) return found
  const { classes } = lookAlikesOf(puzzle)
  const classOf = puzzle.pieces.map((_, p) =>
    Math.min(p, ...(classes.find((each) => each.includes(p)) ?? [])),
  )
  const classSize = classOf.map((_, p) => classOf.filter((other) => other === p).length)
  const result = { classOf, classSize }
  knownClasses.set(puzzle, result)
  return result
}

/** A change that the eye does not see: the pieces that it concerns, and the state after it. */
export interface UnseenChange {
  readonly pieces: readonly number[]
  readonly make: (state: State) => State
}

/**
 * Neighbours in each class of equal pieces traded, and every unseen turn in place; of some pieces only,
 * if they are given.
 */
export function unseenChanges(
  puzzle: Puzzle,
  isOf: (piece: number) => boolean = () => true,
): UnseenChange[] {
  const { classes, unseen } = lookAlikesOf(puzzle)
  const trades = classes.flatMap((all) => {
    const alike = all.filter(isOf)
    return alike.slice(1).flatMap((q, i): UnseenChange[] => {
      const p = alike[i]
      const [there, back] = [replacing(puzzle, p, q), replacing(puzzle, q, p)]
      if (there === undefined || back === undefined) return []
      // p lies as q did and q as p did.
      const make = (state: State) => {
        const next = new Uint8Array(state)
        next[p] = multiply(state[q], there)
        next[q] = multiply(state[p], back)
        return next
      }
      return [{ pieces: [p, q], make }]
    })
  })
  const spins = unseen.flatMap((rotations, p) =>
    !isOf(p)
      ? []
      : rotations.slice(1).map((r): UnseenChange => {
          const make = (state: State) => {
            const next = new Uint8Array(state)
            next[p] = multiply(state[p], r)
            return next
          }
          return { pieces: [p], make }
        }),
  )
  return [...trades, ...spins]
}

/**
 * The same look with each look-alike that looks at home taken for the piece that belongs there; the
 * others of its class get the names that are left. For states in the frame and in shape.
 */
export function namedAtHome(puzzle: Puzzle, state: State): State {
  const named = new Uint8Array(state)
  for (const alike of lookAlikesOf(puzzle).classes) {
    const free = new Set(alike)
    const open: number[] = []
    for (const p of alike) {
      const look = puzzle.look[24 * p + state[p]]
      const own = alike.find((q) => free.has(q) && puzzle.look[24 * q] === look)
      if (own === undefined) open.push(look)
      else {
        free.delete(own)
        named[own] = IDENTITY
      }
    }
    for (const look of open) {
      const [piece, rotation] = nameFor(puzzle, free, look)
      free.delete(piece)
      named[piece] = rotation
    }
  }
  named.forEach((r, p) => {
    if (puzzle.look[24 * p + r] === puzzle.look[24 * p]) named[p] = IDENTITY
  })
  return named
}

function nameFor(puzzle: Puzzle, free: Iterable<number>, look: number): [number, Rotation] {
  for (const piece of free)
    for (const r of reachOf(puzzle)[piece])
      if (puzzle.look[24 * piece + r] === look) return [piece, r]
  throw new Error('no piece has this look')
}
