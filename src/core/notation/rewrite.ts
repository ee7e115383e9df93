/** The same algorithm seen otherwise: mirrored, from another hold, without idle turns. */
import { memoised } from '../memo'
import type { Grip } from '../puzzle/mechanism'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY, multiply, rotate, type Rotation, type Vector } from '../rotation'

export { inverseOf } from '../state'

/** Mirrored left to right (axis 0), top to bottom (1) or front to back (2). @throws where `mirrored` has none */
export function mirror(puzzle: Puzzle, turns: readonly Turn[], axis: 0 | 1 | 2 = 0): Turn[] {
  const image = mirrored(puzzle, turns, axis)
  if (!image) throw new Error('a layer has no counterpart in that mirror')
  return image
}

/** The same; undefined where a layer has no counterpart in that mirror. */
export const mirrored = (
  puzzle: Puzzle,
  turns: readonly Turn[],
  axis: 0 | 1 | 2,
): Turn[] | undefined => mirroredBy(puzzle, turns, acrossAxis(axis))

/**
 * Mirrored left to right, where the puzzle is its own image in some such mirror: between right and left as a
 * box has it, or between two axes as a tetrahedron has it, whose mirrors stand upright on an edge.
 */
export const mirrorImage = (puzzle: Puzzle, turns: readonly Turn[]): Turn[] | undefined =>
  mirrorImages(puzzle, turns)[0]

/** All of them: where a puzzle is held in few ways the images in different mirrors are not the same in any hold. */
export const mirrorImages = (puzzle: Puzzle, turns: readonly Turn[]): Turn[][] =>
  [acrossAxis(0), exchanging(0, 1), exchanging(0, 2), exchanging(1, 2)].flatMap((reflect) => {
    const image = mirroredBy(puzzle, turns, reflect)
    return image ? [image] : []
  })

type Reflection = (v: Vector) => Vector

const acrossAxis =
  (axis: number): Reflection =>
  (v) =>
    v.map((c, i) => (i === axis ? -c + 0 : c)) as unknown as Vector

const exchanging =
  (a: number, b: number): Reflection =>
  (v) =>
    v.map((_, i) => v[i === a ? b : i === b ? a : i]) as unknown as Vector

function mirroredBy(
  puzzle: Puzzle,
  turns: readonly Turn[],
  reflect: Reflection,
): Turn[] | undefined {
  const all: Turn[] = []
  for (const turn of turns) {
    const grip = puzzle.grips[turn.grip]
    // A whole turn about the mirrored axis keeps its name; about another it goes the other way.
    const amount = 360 / grip.unitDegrees - turn.amount
    const image = counterpart(puzzle, grip, reflect(grip.axis), amount)
    if (!image) return undefined
    all.push(image)
  }
  return all
}

/**
 * The turns as they are written after the whole puzzle has been taken along by `rotation`: what
 * was done on the right is done wherever the right side has gone.
 */
export function rehold(puzzle: Puzzle, turns: readonly Turn[], rotation: Rotation): Turn[] {
  if (rotation === IDENTITY) return [...turns]
  return turns.map((turn) => reheld(puzzle, `${rotation} ${turn.index}`))
}

/** A turn as it is written after a rotation, looked for once: 'rotation index'. */
const reheld = memoised((puzzle: Puzzle, what: string): Turn => {
  const [rotation, index] = what.split(' ').map(Number)
  const turn = puzzle.turns[index]
  const grip = puzzle.grips[turn.grip]
  const found = counterpart(puzzle, grip, rotate(rotation, grip.axis), turn.amount)
  if (!found) throw new Error(`${grip.name} has no counterpart in that hold`)
  return found
})

/** The turn whose slab is that of `grip` about another axis; a face letter before a layer number. */
function counterpart(puzzle: Puzzle, grip: Grip, axis: Vector, amount: number): Turn | undefined {
  const full = 360 / grip.unitDegrees
  const same = (a: Vector, b: Vector, sign: number) => a.every((c, i) => c === sign * b[i])
  const flip = (bound: number | null) => (bound === null ? null : -bound)
  const candidates = puzzle.turns.filter((turn) => {
    const other = puzzle.grips[turn.grip]
    if (same(other.axis, axis, 1))
      return other.from === grip.from && other.to === grip.to && turn.amount === amount
    if (same(other.axis, axis, -1))
      return (
        other.from === flip(grip.to) &&
        other.to === flip(grip.from) &&
        turn.amount === full - amount
      )
    return false
  })
  if (candidates.length === 0) return undefined
  const length = (turn: Turn) => puzzle.grips[turn.grip].name.length
  return candidates.reduce((best, turn) => (length(turn) < length(best) ? turn : best))
}

/** Turns in a row, those of one layer joined: the last one, what came before, and how many there are. */
export interface JoinedTurns {
  readonly turn: Turn
  /** Its place in the row; of turns that were joined the first one's. */
  readonly at: number
  readonly before?: JoinedTurns
  /** Turns of layers; a half turn is one. */
  readonly turnCount: number
  /** The same, a half turn counted as two. */
  readonly quarterCount: number
}

/** The earlier turn of the same layer with which one more would be joined, past turns of parallel layers. */
export function partnerOf(
  puzzle: Puzzle,
  made: JoinedTurns | undefined,
  turn: Turn,
): JoinedTurns | undefined {
  let each = made
  while (each && each.turn.grip !== turn.grip && isParallel(puzzle, each.turn, turn))
    each = each.before
  return each?.turn.grip === turn.grip ? each : undefined
}

/** One more turn, joined with its partner if it has one; what cancels is dropped. */
export function joinedWith(
  puzzle: Puzzle,
  made: JoinedTurns | undefined,
  turn: Turn,
  at: number,
): JoinedTurns | undefined {
  const partner = partnerOf(puzzle, made, turn)
  if (!partner) return appended(made, turn, at)
  const passed: JoinedTurns[] = []
  for (let each = made; each && each !== partner; each = each.before) passed.push(each)
  const one = joinedTurn(puzzle, partner.turn, turn)
  return passed.reduceRight<JoinedTurns | undefined>(
    (before, each) => appended(before, each.turn, each.at),
    one ? appended(partner.before, one, partner.at) : partner.before,
  )
}

const appended = (before: JoinedTurns | undefined, turn: Turn, at: number): JoinedTurns => ({
  turn,
  at,
  before,
  turnCount: (before?.turnCount ?? 0) + countTurns([turn]),
  quarterCount: (before?.quarterCount ?? 0) + countQuarters([turn]),
})

/** Two turns of one layer as one; undefined if they cancel. */
export function joinedTurn(puzzle: Puzzle, a: Turn, b: Turn): Turn | undefined {
  const full = 360 / puzzle.grips[a.grip].unitDegrees
  const amount = (a.amount + b.amount) % full
  return puzzle.turns.find((turn) => turn.grip === a.grip && turn.amount === amount)
}

const joinedUp = (puzzle: Puzzle, turns: readonly Turn[]): JoinedTurns | undefined =>
  turns.reduce<JoinedTurns | undefined>(
    (made, turn, at) => joinedWith(puzzle, made, turn, at),
    undefined,
  )

/**
 * Joins turns of one layer that follow each other (turns of parallel layers may stand between) and
 * drops what cancels.
 */
export function simplify(puzzle: Puzzle, turns: readonly Turn[]): Turn[] {
  const kept: Turn[] = []
  for (let at = joinedUp(puzzle, turns); at; at = at.before) kept.push(at.turn)
  return kept.reverse()
}

/** How many turns it takes, once those that follow each other in one layer are joined. */
export function countJoined(
  puzzle: Puzzle,
  turns: readonly Turn[],
): Pick<JoinedTurns, 'turnCount' | 'quarterCount'> {
  const { turnCount = 0, quarterCount = 0 } = joinedUp(puzzle, turns) ?? {}
  return { turnCount, quarterCount }
}

/** Whether two turns are about one axis, so that they can be made in either order. */
export function isParallel(puzzle: Puzzle, a: Turn, b: Turn): boolean {
  const [u, v] = [puzzle.grips[a.grip].axis, puzzle.grips[b.grip].axis]
  return u.every((c, i) => c === v[i]) || u.every((c, i) => c === -v[i])
}

/** The rotation that whole-puzzle turns in a sequence add up to. */
export const holdAfter = (turns: readonly Turn[]): Rotation =>
  turns.reduce((hold, turn) => (turn.whole ? multiply(turn.rotation, hold) : hold), IDENTITY)

/** Turns of layers; whole-puzzle turns cost nothing. A half turn is one. */
export const countTurns = (turns: readonly Turn[]): number =>
  turns.filter((turn) => !turn.whole).length

/** The same, a half turn counted as two. */
export const countQuarters = (turns: readonly Turn[]): number =>
  turns.reduce((sum, turn) => sum + (turn.whole ? 0 : turn.amount === 2 ? 2 : 1), 0)
