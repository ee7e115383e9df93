/**
 * Goals of a stage, judged on a state. A goal is met if some hold of the finished puzzle (the frame
 * k: the rotation that every piece would have) satisfies all its conditions at once.
 */
import { anchoredHolds } from '../analysis/anchors'
import {
  areTogetherIn,
  joinedAs,
  joinedState,
  shownIn,
  togetherIn,
  wholesIn,
  type Joined,
} from '../analysis/joined'
import { parityOf } from '../analysis/invariants'
import { lookClassesOf } from '../analysis/lookAlikes'
import { straysUnder, withinReach } from '../analysis/placements'
import { piecesShowing } from '../analysis/sides'
import { average, subtract, unit } from '../geometry/vector'
import { memoised } from '../memo'
import { directionOfLetter, opposite, type Direction } from '../puzzle/directions'
import { NO_PLACE, type Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE, MATRICES, multiply, type Rotation } from '../rotation'
import type { Condition, Role } from '../schools/school'
import { rotateState, type State } from '../state'
import { areSumsSettled, isReachedButForExchanges, isReachedInFrame } from '../universal/account'
import { selected } from './selections'

/** The pieces with a sticker on one side of the finished puzzle, by side; computed once. */
const sides = new WeakMap<Puzzle, Map<Direction, number[]>>()

export function piecesOfSide(puzzle: Puzzle, side: Direction): readonly number[] {
  const known = sides.get(puzzle) ?? new Map<Direction, number[]>()
  sides.set(puzzle, known)
  let pieces = known.get(side)
  if (!pieces) {
    pieces = piecesShowing(puzzle, side)
    known.set(side, pieces)
  }
  return pieces
}

/** The pieces that a condition concerns. */
export const piecesOf = (
  puzzle: Puzzle,
  { layer, select, pieces }: Condition,
  base: Direction,
): readonly number[] =>
  pieces ?? (select ? selected(puzzle, select, base) : piecesOfSide(puzzle, sideOf(layer, base)))

export const sideOf = (role: Role, base: Direction): Direction =>
  role === 'base' ? base : opposite(base)

export function pieceMeets(
  puzzle: Puzzle,
  condition: Condition,
  base: Direction,
  state: State,
  piece: number,
  frame: Rotation,
): boolean {
  const { joined, wholes } = demandOf(puzzle, condition, base)
  if (joined) {
    const [whole] = wholes.filter((each) => joined.partsOf[each].includes(piece))
    return (
      whole !== undefined &&
      wholeMeets(puzzle, condition, base, joined, shownIn(puzzle, state), whole, frame)
    )
  }
  if (condition.must === 'together')
    return piecesOf(puzzle, condition, base)
      .filter((other) => isOnRayOf(puzzle, other, piece))
      .every((other) => state[other] === state[piece])
  if (condition.must === 'looks home') return filledBy(puzzle, state, piece, frame) !== undefined
  return rotationMeets(puzzle, condition, base, state[piece], piece, frame)
}

/**
 * What lies in the home of a piece and looks as that one does there: itself, or one of its equals. With a
 * sequence's table it is judged after that sequence.
 */
function filledBy(
  puzzle: Puzzle,
  state: State,
  piece: number,
  frame: Rotation,
  table?: Uint8Array,
): number | undefined {
  const wanted = puzzle.look[24 * piece + frame]
  return equalsOf(puzzle)[piece].find((each) => {
    const r = table ? table[24 * each + state[each]] : state[each]
    return puzzle.look[24 * each + r] === wanted
  })
}

/** Whether the home of a piece shows what it should. */
export const isFilled = (puzzle: Puzzle, state: State, piece: number, frame: Rotation): boolean =>
  filledBy(puzzle, state, piece, frame) !== undefined

const equals = new WeakMap<Puzzle, readonly (readonly number[])[]>()

/** For each piece those that look like it, itself first. */
function equalsOf(puzzle: Puzzle): readonly (readonly number[])[] {
  const known = equals.get(puzzle)
  if (known) return known
  const { classOf } = lookClassesOf(puzzle)
  const found = puzzle.pieces.map((_, p) => [
    p,
    ...puzzle.pieces.flatMap((__, q) => (q !== p && classOf[q] === classOf[p] ? [q] : [])),
  ])
  equals.set(puzzle, found)
  return found
}

/** Whether two pieces lie on one ray from their core, as a tip and the centre under it; a piece does with itself. */
export const isOnRayOf = (puzzle: Puzzle, a: number, b: number): boolean =>
  raysOf(puzzle)[a] === raysOf(puzzle)[b]

const rays = new WeakMap<Puzzle, readonly string[]>()

function raysOf(puzzle: Puzzle): readonly string[] {
  const known = rays.get(puzzle)
  if (known) return known
  const found = puzzle.pieces.map(({ cells, core }) => {
    const out = unit(subtract(average(cells), puzzle.cores[core]))
    return `${core}:${out.map((c) => Math.round(c * 1e3) + 0).join()}`
  })
  rays.set(puzzle, found)
  return found
}

function rotationMeets(
  puzzle: Puzzle,
  condition: Condition,
  base: Direction,
  r: Rotation,
  piece: number,
  frame: Rotation,
): boolean {
  switch (condition.must) {
    case 'home':
      return r === frame
    case 'placed':
      return puzzle.place[24 * piece + r] === puzzle.place[24 * piece + frame]
    case 'faced':
      return sameImage(r, frame, sideOf(condition.layer, base))
    case 'in shape':
      return puzzle.place[24 * piece + multiply(INVERSE[frame], r)] !== NO_PLACE
    // These look at more than one piece, and are asked elsewhere.
    case 'looks home':
    case 'settled':
    case 'even':
    case 'solvable':
    case 'together':
      return true
  }
}

/** Whether two rotations take a direction the same way. */
export function sameImage(a: Rotation, b: Rotation, { vector }: Direction): boolean {
  const column = vector[0] !== 0 ? 0 : vector[1] !== 0 ? 1 : 2
  const [m, n] = [MATRICES[a], MATRICES[b]]
  return (
    m[column] === n[column] && m[column + 3] === n[column + 3] && m[column + 6] === n[column + 6]
  )
}

interface Demand {
  readonly condition: Condition
  readonly pieces: readonly number[]
  /** Where pieces of a smaller box are meant: that one, and which of its pieces. */
  readonly joined?: Joined
  readonly wholes: readonly number[]
}

function demandOf(puzzle: Puzzle, condition: Condition, base: Direction): Demand {
  const pieces = piecesOf(puzzle, condition, base)
  const joined = condition.select?.as && joinedAs(puzzle, condition.select.as)
  if (!joined) return { condition, pieces, wholes: [] }
  return { condition, pieces, joined, wholes: [...new Set(pieces.map((p) => joined.wholeOf[p]))] }
}

/** Of a piece of a smaller box, by what is seen of its parts. */
function wholeMeets(
  puzzle: Puzzle,
  { must, layer }: Condition,
  base: Direction,
  joined: Joined,
  shown: Uint16Array,
  whole: number,
  frame: Rotation,
): boolean {
  const { small, partsOf } = joined
  const parts = partsOf[whole]
  if (must === 'home' || must === 'looks home') return areTogetherIn(puzzle, shown, parts, frame)
  const ways = togetherIn(puzzle, joined, shown, whole)
  switch (must) {
    case 'placed':
      return ways.some((r) => small.place[24 * whole + r] === small.place[24 * whole + frame])
    case 'faced':
      return ways.some((r) => sameImage(r, frame, sideOf(layer, base)))
    default:
      return ways.length > 0
  }
}

type DemandsOfGoal = (goal: readonly Condition[], letter: string) => readonly Demand[]

const demands = new WeakMap<Puzzle, DemandsOfGoal>()

/** The conditions of a goal with the pieces that they concern, looked up once. */
function demandsOf(puzzle: Puzzle, goal: readonly Condition[], base: Direction) {
  let known = demands.get(puzzle)
  if (!known) {
    known = memoised((conditions: readonly Condition[], letter: string) =>
      conditions.map((condition) => demandOf(puzzle, condition, directionOfLetter(letter))),
    )
    demands.set(puzzle, known)
  }
  return known(goal, base.letter)
}

/**
 * The frame in which the goal is met, or undefined. With a sequence's table the state after that
 * sequence is judged, and only as many of its pieces are looked up as it takes to refuse it.
 */
export function frameMeeting(
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
  state: State,
  table?: Uint8Array,
): Rotation | undefined {
  const asked = demandsOf(puzzle, goal, base)
  // A piece that must be home settles the frame by itself.
  const settled = asked.find(
    ({ condition, joined }) => condition.must === 'home' && !condition.spare && !joined,
  )
  if (settled) {
    const [piece] = settled.pieces
    const frame = table ? table[24 * piece + state[piece]] : state[piece]
    return anchoredHolds(puzzle, state, table).includes(frame) &&
      meetsAll(puzzle, asked, base, state, frame, table)
      ? frame
      : undefined
  }
  for (const frame of anchoredHolds(puzzle, state, table))
    if (meetsAll(puzzle, asked, base, state, frame, table)) return frame
  return undefined
}

/** Whether it is met in one frame. */
export const isMetIn = (
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
  { state, frame }: { readonly state: State; readonly frame: Rotation },
): boolean => meetsAll(puzzle, demandsOf(puzzle, goal, base), base, state, frame)

function meetsAll(
  puzzle: Puzzle,
  asked: readonly Demand[],
  base: Direction,
  state: State,
  frame: Rotation,
  table?: Uint8Array,
): boolean {
  for (const { condition, pieces, joined, wholes } of asked) {
    if (joined) {
      if (!wholesMeet(puzzle, condition, base, joined, wholes, turnedBy(state, table), frame))
        return false
      continue
    }
    // A block lies well only beside the centres that it belongs to.
    if (condition.must === 'in shape' && straysUnder(puzzle, state, frame).length > 0) return false
    if (condition.must === 'settled' && !areSumsSettled(puzzle, rotateState(state, INVERSE[frame])))
      return false
    if (condition.must === 'even' && !areEven(puzzle, pieces, turnedBy(state, table), frame))
      return false
    if (condition.must === 'together' && !areTogether(puzzle, pieces, state, table)) return false
    let spare = condition.spare ?? 0
    for (const piece of pieces) {
      const r = table ? table[24 * piece + state[piece]] : state[piece]
      const isMet =
        condition.must === 'looks home'
          ? filledBy(puzzle, state, piece, frame, table) !== undefined
          : rotationMeets(puzzle, condition, base, r, piece, frame)
      if (!isMet && spare-- === 0) return false
    }
  }
  return true
}

/** A state after a sequence with that table. */
function turnedBy(state: State, table: Uint8Array | undefined): State {
  return table ? state.map((r, p) => table[24 * p + r]) : state
}

function wholesMeet(
  puzzle: Puzzle,
  condition: Condition,
  base: Direction,
  joined: Joined,
  wholes: readonly number[],
  state: State,
  frame: Rotation,
): boolean {
  if (condition.must === 'solvable') {
    const read = joinedState(puzzle, joined, state)
    if (!read) return false
    const held = withinReach(joined.small, rotateState(read, INVERSE[frame]))
    return wholes.length === joined.small.pieces.length
      ? isReachedInFrame(joined.small, held)
      : isReachedButForExchanges(joined.small, held)
  }
  // Equal ones may not all be the one that is joined.
  if (condition.must === 'together')
    return wholesIn(puzzle, joined, state, wholes).size === wholes.length
  const shown = shownIn(puzzle, state)
  return wholes.every((whole) => wholeMeets(puzzle, condition, base, joined, shown, whole, frame))
}

/** Whether an even number of exchanges would bring pieces home; never if they lie in other places than their own. */
export function areEven(
  puzzle: Puzzle,
  pieces: readonly number[],
  state: State,
  frame: Rotation,
): boolean {
  const to = pieces.map((p) =>
    pieces.indexOf(puzzle.place[24 * p + multiply(INVERSE[frame], state[p])]),
  )
  return !to.includes(-1) && parityOf(to) === 0
}

function areTogether(
  puzzle: Puzzle,
  pieces: readonly number[],
  state: State,
  table?: Uint8Array,
): boolean {
  const names = raysOf(puzzle)
  const first = new Map<string, Rotation>()
  return pieces.every((piece) => {
    const r = table ? table[24 * piece + state[piece]] : state[piece]
    const known = first.get(names[piece])
    if (known === undefined) first.set(names[piece], r)
    return known === undefined || known === r
  })
}

/** The pieces that satisfy some condition of the goal in this frame. */
export function piecesMeeting(
  puzzle: Puzzle,
  goal: readonly Condition[],
  base: Direction,
  state: State,
  frame: Rotation,
): number[] {
  const shown = shownIn(puzzle, state)
  return demandsOf(puzzle, goal, base).flatMap(({ condition, pieces, joined, wholes }) => {
    if (condition.must === 'solvable') return []
    if (joined)
      return wholes
        .filter((whole) => wholeMeets(puzzle, condition, base, joined, shown, whole, frame))
        .flatMap((whole) => filling(puzzle, joined, state, whole))
    return pieces.flatMap((piece) => {
      // Of equal pieces the one that lies there.
      if (condition.must === 'looks home') return filledBy(puzzle, state, piece, frame) ?? []
      return pieceMeets(puzzle, condition, base, state, piece, frame) ? [piece] : []
    })
  })
}

/** Of equal pieces those that lie where parts are together. */
function filling(puzzle: Puzzle, joined: Joined, state: State, whole: number): number[] {
  const parts = joined.partsOf[whole]
  const [rotation] = togetherIn(puzzle, joined, shownIn(puzzle, state), whole)
  const slots = parts.map((p) => puzzle.slot[24 * p + rotation])
  return [...state].flatMap((r, p) => (slots.includes(puzzle.slot[24 * p + r]) ? [p] : []))
}

/**
 * The state as it is when each piece is called after the place that is its home in the frame: a
 * piece that is home has the identity. This is again a state of the puzzle, so tables that were made
 * once serve every colour and every hold.
 */
export function relativeTo(puzzle: Puzzle, state: State, frame: Rotation): State {
  const relative = new Uint8Array(state.length)
  const back = INVERSE[frame]
  for (let p = 0; p < state.length; p++)
    relative[puzzle.place[24 * p + frame]] = multiply(state[p], back)
  return relative
}

/** The piece whose home in the frame is the given place. */
export const pieceFor = (puzzle: Puzzle, place: number, frame: Rotation): number =>
  puzzle.place[24 * place + INVERSE[frame]]

export const isFaced = (rotation: Rotation, side: Direction): boolean =>
  sameImage(rotation, IDENTITY, side)
