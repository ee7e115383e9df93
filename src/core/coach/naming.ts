/**
 * Equal pieces told apart for one plan. Where two pieces look alike, or one can be turned unseen, a position
 * can be read in several ways, and only some of them can be led home. A naming calls each piece by the home
 * that it is meant for; turns carry it along, so it holds for the whole way.
 */
import { isNothing } from '../analysis/invariants'
import { anchorsOf } from '../analysis/anchors'
import { lookAlikesOf, unseenChanges } from '../analysis/lookAlikes'
import { frameOf } from '../analysis/frame'
import { holdOf } from '../analysis/placements'
import type { Puzzle } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import { rotateState, start, type State } from '../state'
import { accountOf, named, type Account, type Change } from '../universal/account'
import type { Route } from './route'

/** The piece `is` is taken for the piece `as`, once it is turned so in place. Indices. */
export interface Taken {
  readonly as: number
  readonly is: number
  readonly turned: Rotation
}

/** What is taken for itself is left out. */
export type Naming = readonly Taken[]

/** Namings looked at, once at the beginning and again at each stage, and changes from the natural one. */
const MOST_AT_FIRST = 200
const MOST_AGAIN = 60
const MOST_CHANGES = 3

interface Search extends Pick<Account, 'coordinates' | 'vectorOf'> {
  /**
   * Of the pieces that travel, but for some that keep their names, with what each adds to the vector, wherever it
   * is made.
   */
  readonly changesBut: (settled: readonly number[]) => readonly Change[]
  readonly isReached: (vector: readonly number[]) => boolean
}

const searches = new WeakMap<Puzzle, Search>()

/** What every search for readings needs, made once. */
function searchOf(puzzle: Puzzle): Search {
  const known = searches.get(puzzle)
  if (known) return known
  const { span, vectorOf, coordinates } = accountOf(puzzle)
  // The piece that sets the hold keeps its name, where there is one.
  const still = new Set([...anchorsOf(puzzle), frameOf(puzzle).piece])
  const made = new Map<string, readonly Change[]>()
  const changesBut = (settled: readonly number[]) => {
    const key = [...settled].sort((a, b) => a - b).join()
    const fixed = new Set(settled)
    const changes =
      made.get(key) ??
      unseenChanges(puzzle, (p) => !still.has(p) && !fixed.has(p)).map((change) => ({
        ...change,
        by: vectorOf(change.make(start(puzzle))),
      }))
    made.set(key, changes)
    return changes
  }
  const asked = new Map<string, boolean>()
  const isReached = (vector: readonly number[]) => {
    const key = vector.join()
    const found = asked.get(key) ?? isNothing(span, vector)
    asked.set(key, found)
    return found
  }
  const search = { changesBut, coordinates, vectorOf, isReached }
  searches.set(puzzle, search)
  return search
}

const leaving = new WeakMap<Puzzle, boolean>()

/** Whether a position leaves it open which piece is which: equal pieces that travel, or turn unseen. */
export function leavesOpen(puzzle: Puzzle): boolean {
  const known = leaving.get(puzzle)
  if (known !== undefined) return known
  const anchored = new Set(anchorsOf(puzzle))
  const { classes, unseen } = lookAlikesOf(puzzle)
  const open = classes.length > 0 || unseen.some((turns, p) => turns.length > 1 && !anchored.has(p))
  leaving.set(puzzle, open)
  return open
}

/**
 * The ways to read a position that can be led home, each as the state it then is; what looks at home is
 * taken to be at home if that can be, and comes first. The position itself where nothing is open.
 */
export function readingsOf(puzzle: Puzzle, state: State): State[] {
  const hold = leavesOpen(puzzle) ? holdOf(puzzle, state) : undefined
  if (hold === undefined) return [state]
  const { span } = accountOf(puzzle)
  const natural = named(puzzle, rotateState(state, INVERSE[hold]), (vector) =>
    isNothing(span, vector),
  )
  return natural
    ? otherReadings(puzzle, rotateState(natural.state, hold), hold, [], MOST_AT_FIRST)
    : [state]
}

/**
 * The readings near one that can be led home, itself first; `settled` pieces keep their names. `frame`: the
 * rotation that every piece will have when it is home.
 */
export function otherReadings(
  puzzle: Puzzle,
  given: State,
  frame: Rotation,
  settled: readonly number[] = [],
  most = MOST_AGAIN,
): State[] {
  if (!leavesOpen(puzzle)) return [given]
  const hold = anchorsOf(puzzle).length > 0 ? frame : (holdOf(puzzle, given) ?? frame)
  const { changesBut, coordinates, vectorOf, isReached } = searchOf(puzzle)
  const changes = changesBut(settled)
  if (changes.length === 0) return [given]
  const state = rotateState(given, INVERSE[hold])
  const found = [state]
  const seen = new Set([state.join()])
  let front = [{ state, vector: vectorOf(state) }]
  for (let made = 0; made < MOST_CHANGES; made++) {
    const next: typeof front = []
    for (const each of front)
      for (const { make, by } of changes) {
        if (seen.size >= most) break
        const changed = make(each.state)
        const key = changed.join()
        if (seen.has(key)) continue
        seen.add(key)
        const vector = each.vector.map((entry, c) => (entry + by[c]) % coordinates[c].modulus)
        next.push({ state: changed, vector })
        if (isReached(vector)) found.push(changed)
      }
    front = next
  }
  return found.map((each) => rotateState(each, hold))
}

/** How one state is read as another of the same look. */
export function namingBetween(puzzle: Puzzle, state: State, read: State): Naming {
  const bySlot = new Map([...state].map((r, p) => [puzzle.slot[24 * p + r], p]))
  return [...read].flatMap((r, as): Taken[] => {
    const is = bySlot.get(puzzle.slot[24 * as + r])
    if (is === undefined) throw new Error('the two do not look the same')
    const turned = multiply(INVERSE[state[is]], r)
    return is === as && turned === 0 ? [] : [{ as, is, turned }]
  })
}

/** A later state under the same names. */
export function readWith(naming: Naming, state: State): State {
  if (naming.length === 0) return state
  const read = new Uint8Array(state)
  for (const { as, is, turned } of naming) read[as] = multiply(state[is], turned)
  return read
}

/** Which piece it really is that goes by the name of another. */
export const really = (naming: Naming, piece: number): number =>
  naming.find(({ as }) => as === piece)?.is ?? piece

/** The name that a piece goes by. */
export const nameOf = (naming: Naming, piece: number): number =>
  naming.find(({ is }) => is === piece)?.as ?? piece

const indexOf = (puzzle: Puzzle, id: string): number => {
  const found = puzzle.pieces.findIndex((piece) => piece.id === id)
  if (found < 0) throw new Error(`the puzzle has no piece ${id}`)
  return found
}

/** As a route keeps it. */
export const writeNaming = (puzzle: Puzzle, naming: Naming): NonNullable<Route['naming']> =>
  naming.map(({ as, is, turned }) => ({
    as: puzzle.pieces[as].id,
    is: puzzle.pieces[is].id,
    turned,
  }))

export const namingOf = (puzzle: Puzzle, { naming = [] }: Pick<Route, 'naming'>): Naming =>
  naming.map(({ as, is, turned }) => ({
    as: indexOf(puzzle, as),
    is: indexOf(puzzle, is),
    turned,
  }))
