/** What an algorithm does: cycles of places, twists in place, what it leaves, how often until back. */
import { NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { turnAll, placeOf, rotateState, start, type State } from '../state'
import { INVERSE, multiply, orderOf, type Rotation } from '../rotation'
import { holdAfter } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import { doSequence, sequenceOf } from '../search/sequence'

export interface CycleEffect {
  readonly kind: string
  /** Place names: what is in each goes to the next, what is in the last to the first. */
  readonly places: readonly string[]
  /** How often the whole cycle must be done until its pieces are turned right too. */
  readonly order: number
}

export interface TwistEffect {
  readonly kind: string
  readonly place: string
  /** How often until it is right again: 2 for a flip, 3 for a twist of a corner. */
  readonly order: number
}

export interface Effect {
  readonly turnCount: number
  /** What the whole-puzzle turns in it add up to. */
  readonly hold: Rotation
  readonly cycles: readonly CycleEffect[]
  readonly twisted: readonly TwistEffect[]
  readonly untouched: number
  /** Repeats until everything is where it was, up to the hold. */
  readonly order: number
}

/** Repeats that are tried before an algorithm counts as never coming back. */
const REPEAT_LIMIT = 100_000

/**
 * The effect on the finished puzzle, whole-puzzle turns undone at the end: by themselves they do
 * nothing. Fails if a turn is blocked, or if the puzzle is out of shape afterwards.
 */
export function effectOf(puzzle: Puzzle, turns: readonly Turn[]): Result<Effect> {
  const after = turnAll(puzzle, start(puzzle), turns)
  if (!after.ok) return after
  const hold = holdAfter(turns)
  const state = rotateState(after.value, INVERSE[hold])
  if (state.some((r, p) => puzzle.place[24 * p + r] === NO_PLACE))
    return fail(
      'out-of-shape',
      'After these turns the puzzle is out of shape, so its pieces lie in no places of the finished one. Add the turns that bring the shape back.',
    )
  const cycles: CycleEffect[] = []
  const twisted: TwistEffect[] = []
  const seen = new Set<number>()
  state.forEach((_, first) => {
    if (seen.has(first)) return
    const round = cycleFrom(puzzle, state, first)
    round.forEach((place) => seen.add(place))
    const turned = round.reduce((sum, place) => multiply(state[place], sum), 0)
    const kind = puzzle.pieces[first].kind
    const places = round.map((place) => puzzle.pieces[place].id)
    if (round.length > 1) cycles.push({ kind, places, order: round.length * orderOf(turned) })
    else if (turned !== 0) twisted.push({ kind, place: places[0], order: orderOf(turned) })
  })
  const touched = cycles.reduce((sum, { places }) => sum + places.length, 0) + twisted.length
  return ok({
    turnCount: turns.filter((turn) => !turn.whole).length,
    hold,
    cycles,
    twisted,
    untouched: puzzle.pieces.length - touched,
    order: repeatsUntilBack(puzzle, turns),
  })
}

/** Places in the order in which the piece of the first visits them. */
function cycleFrom(puzzle: Puzzle, state: State, first: number): number[] {
  const round = [first]
  for (let at = placeOf(puzzle, state, first); at !== first; at = placeOf(puzzle, state, at))
    round.push(at)
  return round
}

/** Counted by doing it, because whole-puzzle turns inside make every repeat a different one. */
function repeatsUntilBack(puzzle: Puzzle, turns: readonly Turn[]): number {
  const once = sequenceOf(puzzle, turns)
  let state = doSequence(once, start(puzzle))
  for (let repeats = 1; repeats <= REPEAT_LIMIT; repeats++) {
    if (state.every((r) => r === state[0]) && puzzle.holds.includes(state[0])) return repeats
    state = doSequence(once, state)
  }
  throw new Error('the algorithm does not come back')
}
