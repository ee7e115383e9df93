/**
 * Where each piece can ever get to, turn by turn from home, with blocks left out of account: the
 * rotations that it can have, and the families of pieces that share slots.
 */
import { dot } from '../geometry/vector'
import { IN, STRADDLES, type Puzzle, type Turn } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'
import { frameOf } from './frame'

export interface Family {
  readonly pieces: readonly number[]
  /** All slots that some piece of the family can fill; those below the piece count are homes. */
  readonly slots: readonly number[]
  /** How many rotations a piece can have in one slot. */
  readonly orientations: number
}

const reaches = new WeakMap<Puzzle, readonly (readonly Rotation[])[]>()

/** For each piece the rotations that turns of the frame give it, the identity first. */
export function reachOf(puzzle: Puzzle): readonly (readonly Rotation[])[] {
  const known = reaches.get(puzzle)
  if (known) return known
  const reach = reachUnder(puzzle, frameOf(puzzle).turns)
  reaches.set(puzzle, reach)
  return reach
}

const handReaches = new WeakMap<Puzzle, readonly (readonly Rotation[])[]>()

/**
 * The same as it is in the hand, where no visible piece is kept still: under all turns of layers. Where
 * the frame is the hidden core it is what `reachOf` gives.
 */
export function handReachOf(puzzle: Puzzle): readonly (readonly Rotation[])[] {
  if (frameOf(puzzle).piece === undefined) return reachOf(puzzle)
  const known = handReaches.get(puzzle)
  if (known) return known
  const reach = reachUnder(
    puzzle,
    puzzle.turns.filter(({ whole }) => !whole),
  )
  handReaches.set(puzzle, reach)
  return reach
}

/**
 * The same under turns of layers that lie to one side of the middle: a middle layer turned is the others turned
 * the other way, in another hold.
 */
export function outerReachOf(puzzle: Puzzle): readonly (readonly Rotation[])[] {
  if (frameOf(puzzle).piece === undefined) return reachOf(puzzle)
  const isAside = ({ grip }: Turn) => {
    const { axis, from, to } = puzzle.grips[grip]
    const height = dot(axis, puzzle.middle)
    return (from !== null && from >= height) || (to !== null && to <= height)
  }
  return reachUnder(puzzle, puzzle.turns.filter(isAside))
}

const reachUnder = (puzzle: Puzzle, turns: readonly Turn[]) =>
  puzzle.pieces.map((_, p) => {
    const found = [IDENTITY]
    const seen = new Uint8Array(ROTATION_COUNT)
    seen[IDENTITY] = 1
    for (const r of found)
      for (const turn of turns) {
        if (puzzle.carry[turn.grip][24 * p + r] !== IN) continue
        const next = multiply(turn.rotation, r)
        if (seen[next]) continue
        seen[next] = 1
        found.push(next)
      }
    return found
  })

const families = new WeakMap<Puzzle, readonly Family[]>()

/** The orbits: pieces that can fill each other's slots. */
export function familiesOf(puzzle: Puzzle): readonly Family[] {
  const known = families.get(puzzle)
  if (known) return known
  const reach = reachOf(puzzle)
  const owner = new Map<number, number>()
  const root = puzzle.pieces.map((_, p) => p)
  const find = (p: number): number => (root[p] === p ? p : (root[p] = find(root[p])))
  reach.forEach((rotations, p) => {
    for (const r of rotations) {
      const slot = puzzle.slot[24 * p + r]
      const first = owner.get(slot)
      if (first === undefined) owner.set(slot, p)
      else root[find(p)] = find(first)
    }
  })
  const groups = new Map<number, number[]>()
  puzzle.pieces.forEach((_, p) => groups.set(find(p), [...(groups.get(find(p)) ?? []), p]))
  const found = [...groups.values()].map((pieces): Family => {
    const slots = [
      ...new Set(pieces.flatMap((p) => reach[p].map((r) => puzzle.slot[24 * p + r]))),
    ].sort((a, b) => a - b)
    const own = pieces[0]
    const atHome = reach[own].filter((r) => puzzle.slot[24 * own + r] === own).length
    return { pieces, slots, orientations: atHome }
  })
  families.set(puzzle, found)
  return found
}

const blocking = new WeakMap<Puzzle, boolean>()

/** Whether some turn can be blocked, so that not every sequence of turns can be made. */
export function canBlock(puzzle: Puzzle): boolean {
  const known = blocking.get(puzzle)
  if (known !== undefined) return known
  // Where every place is always filled, so is every cap.
  const canLack = familiesOf(puzzle).some(({ pieces, slots }) => slots.length > pieces.length)
  const hasConditions = puzzle.grips.some(({ condition }) => condition !== null)
  const can = (hasConditions && canLack) || puzzle.pieces.some((_, p) => canBeCut(puzzle, p))
  blocking.set(puzzle, can)
  return can
}

/** Whether some turn can ever cut a piece. */
export const canBeCut = (puzzle: Puzzle, piece: number): boolean =>
  reachOf(puzzle)[piece].some((r) =>
    puzzle.carry.some((table) => table[24 * piece + r] === STRADDLES),
  )

/** The hold of a state: the rotation under which every piece lies where turns take it, if there is one. */
export const holdOf = (puzzle: Puzzle, state: State): Rotation | undefined =>
  puzzle.holds.find((hold) => straysUnder(puzzle, state, hold).length === 0)

/** Pieces that lie, under a hold, where no turns take them. */
export function straysUnder(puzzle: Puzzle, state: State, hold: Rotation): number[] {
  const reach = reachOf(puzzle)
  return Array.from(state).flatMap((r, p) =>
    reach[p].includes(multiply(INVERSE[hold], r)) ? [] : [p],
  )
}

/** A state in the frame, pieces that look alike in several rotations in one that turns can give them. */
export function withinReach(puzzle: Puzzle, state: State): State {
  const reach = reachOf(puzzle)
  return state.map((r, p) =>
    reach[p].includes(r)
      ? r
      : (reach[p].find((other) => puzzle.look[24 * p + other] === puzzle.look[24 * p + r]) ?? r),
  )
}

/** The places of an orbit as there are pieces in the hand: the piece that is kept still may be one more. */
export function inHand(puzzle: Puzzle, places: readonly number[]): readonly number[] {
  const { piece } = frameOf(puzzle)
  const isOne =
    piece !== undefined &&
    handReachOf(puzzle)[piece].some((r) => puzzle.place[24 * piece + r] === places[0])
  return isOne ? [...places, piece] : places
}
