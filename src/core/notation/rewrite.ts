/** The same algorithm seen otherwise: mirrored, from another hold, without idle turns. */
import { memoised } from '../memo'
import type { Grip } from '../puzzle/mechanism'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY, multiply, rotate, type Rotation, type Vector } from '../rotation'

export { inverseOf } from '../state'

/** Mirrored left to right (axis 0), top to bottom (1) or front to back (2). */
export function mirror(puzzle: Puzzle, turns: readonly Turn[], axis: 0 | 1 | 2 = 0): Turn[] {
  const mirrored = mirroredBy(puzzle, turns, acrossAxis(axis))
  if (!mirrored) throw new Error('a layer has no counterpart in that mirror')
  return mirrored
}

/**
 * Mirrored left to right, where the puzzle is its own image in some such mirror: between right and left as a
 * box has it, or between two axes as a tetrahedron has it, whose mirrors stand upright on an edge.
 */
export function mirrorImage(puzzle: Puzzle, turns: readonly Turn[]): Turn[] | undefined {
  for (const reflect of [acrossAxis(0), exchanging(0, 1), exchanging(0, 2), exchanging(1, 2)]) {
    const mirrored = mirroredBy(puzzle, turns, reflect)
    if (mirrored) return mirrored
  }
  return undefined
}

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
  const mirrored: Turn[] = []
  for (const turn of turns) {
    const grip = puzzle.grips[turn.grip]
    // A whole turn about the mirrored axis keeps its name; about another it goes the other way.
    const amount = 360 / grip.unitDegrees - turn.amount
    const image = counterpart(puzzle, grip, reflect(grip.axis), amount)
    if (!image) return undefined
    mirrored.push(image)
  }
  return mirrored
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

/**
 * Joins turns of one layer that follow each other (turns of parallel layers may stand between) and
 * drops what cancels.
 */
export function simplify(puzzle: Puzzle, turns: readonly Turn[]): Turn[] {
  const kept: Turn[] = []
  for (const turn of turns) {
    let k = kept.length - 1
    while (k >= 0 && kept[k].grip !== turn.grip && parallel(puzzle, kept[k], turn)) k--
    if (k < 0 || kept[k].grip !== turn.grip) {
      kept.push(turn)
      continue
    }
    const full = 360 / puzzle.grips[turn.grip].unitDegrees
    const amount = (kept[k].amount + turn.amount) % full
    if (amount === 0) kept.splice(k, 1)
    else kept[k] = puzzle.turns.find((t) => t.grip === turn.grip && t.amount === amount) as Turn
  }
  return kept
}

function parallel(puzzle: Puzzle, a: Turn, b: Turn): boolean {
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
