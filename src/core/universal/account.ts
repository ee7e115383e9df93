/**
 * The account of a puzzle: what turns respect, as far as the eye can see it. A state has a vector, one
 * entry an orbit for odd and even and one for the sum of its twists. Turns lead there only if the vector
 * lies in the span of the turns' own. Look-alikes widen that: trading two of them, or turning one unseen
 * in its place, changes the vector and nothing that is seen.
 */
import {
  coordinatesFor,
  isNothing,
  spanOf,
  type Coordinate,
  type Span,
} from '../analysis/invariants'
import { unseenChanges, type UnseenChange } from '../analysis/lookAlikes'
import { holdOf, straysUnder } from '../analysis/placements'
import { inSpan, vectorOfState } from '../analysis/sums'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, INVERSE } from '../rotation'
import { rotateState, start, type State } from '../state'
import { isInShape } from '../scramble/scramble'
import { namedInOrbits } from './namedInOrbits'
import { workOf } from './orbitsAtWork'

export interface Change extends UnseenChange {
  /** What it adds to the vector, wherever it is made. */
  readonly by: readonly number[]
}

export interface Account {
  /** The coordinates that matter, orbits by position in `workOf(puzzle).sums`. */
  readonly coordinates: readonly Coordinate[]
  /** Of a state in the frame and in shape. */
  readonly vectorOf: (state: State) => number[]
  readonly turns: readonly (readonly number[])[]
  /** Of the turns, all pieces told apart. */
  readonly span: Span
  /** Of the turns and of all changes that are not seen. */
  readonly seen: Span
  /** Of the changes alone. */
  readonly unseen: Span
  readonly changes: readonly Change[]
}

const known = new WeakMap<Puzzle, Account>()

/** The puzzle must have moves (`hasMoves`). */
export function accountOf(puzzle: Puzzle): Account {
  const found = known.get(puzzle)
  if (found) return found
  const { sums, columns } = workOf(puzzle)
  const pick = (vector: readonly number[]) => columns.map((c) => vector[c])
  const all = coordinatesFor(sums.orbits)
  const coordinates = columns.map((c) => all[c])
  const moduli = coordinates.map(({ modulus }) => modulus)
  const turns = sums.turns.map(pick)
  const vectorOf = (state: State) => pick(vectorOfState(puzzle, sums, state))
  const changes = changesOf(puzzle, vectorOf)
  const account: Account = {
    coordinates,
    vectorOf,
    turns,
    span: spanOf(turns, moduli),
    seen: spanOf([...turns, ...changes.map(({ by }) => by)], moduli),
    unseen: spanOf(
      changes.map(({ by }) => by),
      moduli,
    ),
    changes,
  }
  known.set(puzzle, account)
  return account
}

/** Changes that are not seen and change the vector; of some pieces only, if they are given. */
function changesOf(
  puzzle: Puzzle,
  vectorOf: Account['vectorOf'],
  isOf?: (piece: number) => boolean,
): Change[] {
  const { orbits } = workOf(puzzle).sums
  return unseenChanges(puzzle, isOf).flatMap((change): Change[] => {
    // Where the shape changes, equal pieces may belong to orbits that never meet in shape.
    if (!orbits.some(({ places }) => change.pieces.every((p) => places.includes(p)))) return []
    const by = vectorOf(change.make(start(puzzle)))
    return by.some((entry) => entry !== 0) ? [{ ...change, by }] : []
  })
}

/**
 * Whether turns lead to a state as it looks, as far as sums tell; for puzzles whose turns never block.
 */
export function isReached(puzzle: Puzzle, state: State): boolean {
  const hold = holdOf(puzzle, state)
  return hold !== undefined && isReachedInFrame(puzzle, rotateState(state, INVERSE[hold]))
}

/** The same where it is said which side is which: for a state in the frame. */
export function isReachedInFrame(puzzle: Puzzle, state: State): boolean {
  const { seen, vectorOf } = accountOf(puzzle)
  return straysUnder(puzzle, state, IDENTITY).length === 0 && isNothing(seen, vectorOf(state))
}

/** The same with all pieces told apart, and with turns that do not show. */
export function isReachedExactly(puzzle: Puzzle, state: State): boolean {
  const hold = holdOf(puzzle, state)
  if (hold === undefined) return false
  // All sums count, those too that are no concern of who only looks.
  const { sums } = workOf(puzzle)
  return inSpan(sums, vectorOfState(puzzle, sums, rotateState(state, INVERSE[hold])))
}

/** The same but for exchanges: whether all twists can come right. For a state in the frame. */
export function isReachedButForExchanges(puzzle: Puzzle, state: State): boolean {
  const { coordinates, vectorOf, turns, changes } = accountOf(puzzle)
  const exchanges = coordinates.flatMap(({ what }, at) =>
    what === 'parity' ? [coordinates.map((_, c) => Number(c === at))] : [],
  )
  const moduli = coordinates.map(({ modulus }) => modulus)
  const span = spanOf([...turns, ...changes.map(({ by }) => by), ...exchanges], moduli)
  return isNothing(span, vectorOf(state))
}

/** A state with its look-alikes told apart, and which of them had to be traded for that. */
export interface Naming {
  readonly state: State
  readonly traded: readonly Change[]
}

/**
 * Look-alikes told apart so that the vector is as wanted. What looks at home is taken to be at home; if
 * that cannot be, names are first traded among pieces that are not at home, then among all, as few as
 * can be. Undefined if no naming does.
 */
export function named(
  puzzle: Puzzle,
  given: State,
  isWanted: (vector: readonly number[]) => boolean,
): (Naming & { readonly isNatural: boolean }) | undefined {
  const account = accountOf(puzzle)
  const state = namedInOrbits(puzzle, given)
  const isOpen = (p: number) => state[p] !== IDENTITY
  const open = fewestTrades(account, state, changesOf(puzzle, account.vectorOf, isOpen), isWanted)
  if (open) return { ...open, isNatural: true }
  const any = fewestTrades(account, state, account.changes, isWanted)
  return any && { ...any, isNatural: false }
}

/**
 * Whether, with look-alikes told apart in some way, every sum of a state in the frame is nothing. Whether
 * there is such a way is a question of the span; which one has the fewest trades (`named`) is a search.
 */
export function areSumsSettled(puzzle: Puzzle, state: State): boolean {
  if (straysUnder(puzzle, state, IDENTITY).length > 0 || !isInShape(puzzle, state)) return false
  const { unseen, vectorOf } = accountOf(puzzle)
  return isNothing(unseen, vectorOf(namedInOrbits(puzzle, state)))
}

function fewestTrades(
  { coordinates, vectorOf }: Account,
  state: State,
  changes: readonly Change[],
  isWanted: (vector: readonly number[]) => boolean,
): Naming | undefined {
  const steps = [...new Map(changes.map((change) => [change.by.join(), change] as const)).values()]
  const first = vectorOf(state)
  const seen = new Set([first.join()])
  let front: { vector: readonly number[]; traded: readonly Change[] }[] = [
    { vector: first, traded: [] },
  ]
  while (front.length > 0) {
    const next: typeof front = []
    for (const { vector, traded } of front) {
      if (isWanted(vector))
        return { state: traded.reduce((current, { make }) => make(current), state), traded }
      for (const step of steps) {
        const to = vector.map((entry, c) => (entry + step.by[c]) % coordinates[c].modulus)
        if (seen.has(to.join())) continue
        seen.add(to.join())
        next.push({ vector: to, traded: [...traded, step] })
      }
    }
    front = next
  }
  return undefined
}
