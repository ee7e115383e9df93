/** A state is one rotation a piece: a Uint8Array of rotation indices, in the order of the pieces. */
import { IN, NO_PLACE, STRADDLES, type Puzzle, type Turn } from './puzzle/compile'
import { plural } from './phrases'
import { fail, ok, type Result } from './result'
import { multiply, PRODUCT, ROTATION_COUNT, type Rotation } from './rotation'

export type State = Uint8Array

/** The finished puzzle as its definition holds it. */
export const start = (puzzle: Puzzle): State => new Uint8Array(puzzle.pieces.length)

/** Why a turn cannot be made. */
export type Block =
  /** The pieces that it would cut. */
  | { readonly kind: 'cuts'; readonly pieces: readonly number[] }
  /** The places of the cap (as pieces whose homes they are) where nothing is. */
  | { readonly kind: 'incomplete'; readonly places: readonly number[] }

/** What blocks a turn, or undefined if it is free. */
export function blockOf(puzzle: Puzzle, state: State, { grip }: Turn): Block | undefined {
  const carry = puzzle.carry[grip]
  const { condition } = puzzle.grips[grip]
  const cut: number[] = []
  let cells = 0
  for (let p = 0; p < state.length; p++) {
    const how = carry[24 * p + state[p]]
    if (how === STRADDLES) cut.push(p)
    else if (how === IN && condition) cells += puzzle.pieces[p].cells.length
  }
  if (cut.length > 0) return { kind: 'cuts', pieces: cut }
  if (!condition || cells === condition.complete) return undefined
  const filled = new Set(Array.from(state, (r, p) => puzzle.slot[24 * p + r]))
  const places = puzzle.pieces.flatMap((_, p) =>
    carry[24 * p] === IN && !filled.has(p) ? [p] : [],
  )
  return { kind: 'incomplete', places }
}

/** The state after a turn that is known to be free. Writes into `into`, which may be `state`. */
export function turnFreely(puzzle: Puzzle, state: State, turn: Turn, into: State): State {
  const carry = puzzle.carry[turn.grip]
  const row = 24 * turn.rotation
  for (let p = 0; p < state.length; p++) {
    const r = state[p]
    into[p] = carry[24 * p + r] === IN ? PRODUCT[row + r] : r
  }
  return into
}

/** Why in short: which pieces and places, a claim says (`claims/facts.ts`). */
const blockedBriefly = ({ name }: Turn, block: Block): string =>
  block.kind === 'cuts'
    ? `${name} is blocked: it would cut through ${plural(block.pieces.length, 'piece')}.`
    : `${name} is blocked: that layer is not complete.`

/** The state after a turn, or why it is blocked. The given state is left as it is. */
export function turn(puzzle: Puzzle, state: State, what: Turn): Result<State> {
  const block = blockOf(puzzle, state, what)
  if (block) return fail('blocked', blockedBriefly(what, block))
  return ok(turnFreely(puzzle, state, what, new Uint8Array(state.length)))
}

/** The state after all turns, or the first that is blocked. */
export function turnAll(puzzle: Puzzle, state: State, turns: readonly Turn[]): Result<State> {
  let current = state
  for (const [index, each] of turns.entries()) {
    const next = turn(puzzle, current, each)
    if (!next.ok)
      return fail(next.problem.code, `Turn ${index + 1}: ${next.problem.sentence}`, { at: index })
    current = next.value
  }
  return ok(current)
}

export const inverseOf = (puzzle: Puzzle, turns: readonly Turn[]): Turn[] =>
  turns.map((each) => puzzle.turns[each.inverse]).reverse()

/** The whole puzzle taken along by a rotation. */
export const rotateState = (state: State, rotation: Rotation): State =>
  state.map((r) => multiply(rotation, r))

/** The hold in which the state looks finished, or undefined. Look-alikes count as home. */
export function solvedHold(puzzle: Puzzle, state: State): Rotation | undefined {
  const index = puzzle.solvedLooks.findIndex((flags) => {
    for (let p = 0; p < state.length; p++) if (!flags[puzzle.look[24 * p + state[p]]]) return false
    return true
  })
  return index < 0 ? undefined : puzzle.holds[index]
}

export const isSolved = (puzzle: Puzzle, state: State): boolean =>
  solvedHold(puzzle, state) !== undefined

export const sameState = (a: State, b: State): boolean =>
  a.length === b.length && a.every((r, p) => r === b[p])

/** What the eye sees, as text: equal texts look the same from the same hold. */
export const looksOf = (puzzle: Puzzle, state: State): string =>
  Array.from(state, (r, p) => puzzle.look[24 * p + r])
    .sort((a, b) => a - b)
    .join()

/** Whether a placement, core home, shows what the finished puzzle shows there. */
export function looksHome(puzzle: Puzzle, piece: number, rotation: Rotation): boolean {
  const at = 24 * piece + rotation
  const place = puzzle.place[at]
  return place !== NO_PLACE && puzzle.look[at] === puzzle.look[24 * place]
}

/** Equality up to hold and look-alikes. */
export function looksSame(puzzle: Puzzle, a: State, b: State): boolean {
  const wanted = looksOf(puzzle, b)
  return puzzle.holds.some((hold) => looksOf(puzzle, rotateState(a, hold)) === wanted)
}

/** One letter a piece, a to x: short, readable and safe in an address. */
export const writeState = (state: State): string =>
  Array.from(state, (r) => String.fromCharCode(97 + r)).join('')

/**
 * Reads what `writeState` wrote. Refused: a wrong length, a letter beyond x, two pieces in one
 * place. (Whether turns can reach it is another question.)
 */
export function readState(puzzle: Puzzle, text: string): Result<State> {
  const bad = (why: string) => fail('bad-state', `This is no state of the puzzle: ${why}.`)
  if (text.length !== puzzle.pieces.length)
    return bad(`it has ${text.length} letters for ${puzzle.pieces.length} pieces`)
  const state = Uint8Array.from(text, (letter) => letter.charCodeAt(0) - 97)
  if (state.some((r) => r >= ROTATION_COUNT)) return bad('a letter is not between a and x')
  const filled = new Set(Array.from(state, (r, p) => puzzle.slot[24 * p + r]))
  if (filled.size !== state.length) return bad('two pieces would sit in the same place')
  return ok(state)
}

/** The place a piece fills, as the piece whose home it is. */
export const placeOf = (puzzle: Puzzle, state: State, piece: number): number =>
  puzzle.place[24 * piece + state[piece]]

/** For each place, the piece that fills it. */
export function occupants(puzzle: Puzzle, state: State): Uint8Array {
  const filled = new Uint8Array(state.length)
  for (let p = 0; p < state.length; p++) filled[placeOf(puzzle, state, p)] = p
  return filled
}
