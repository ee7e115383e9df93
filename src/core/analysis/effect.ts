/** What an algorithm does: cycles of places, twists in place, what it leaves, how often until back. */
import { NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { turnAll, placeOf, rotateState, start, type State } from '../state'
import { INVERSE, multiply, orderOf, type Rotation } from '../rotation'
import { holdAfter } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import { doSequence, sequenceOf } from '../notation/sequence'

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

/**
 * The effect on the finished puzzle, whole-puzzle turns undone at the end: by themselves they do
 * nothing. Fails if a turn is blocked, or if the puzzle is out of shape afterwards.
 */
export function effectOf(puzzle: Puzzle, turns: readonly Turn[]): Result<Effect> {
  const made = stateMade(puzzle, turns)
  if (!made.ok) return made
  const state = made.value
  const cycles: CycleEffect[] = []
  const twisted: TwistEffect[] = []
  cyclesOf(puzzle, state).forEach((round) => {
    const [first] = round
    const turned = round.reduce((sum, place) => multiply(state[place], sum), 0)
    const kind = puzzle.pieces[first].kind
    const places = round.map((place) => puzzle.pieces[place].id)
    if (round.length > 1) cycles.push({ kind, places, order: round.length * orderOf(turned) })
    else if (turned !== 0) twisted.push({ kind, place: places[0], order: orderOf(turned) })
  })
  const touched = cycles.reduce((sum, { places }) => sum + places.length, 0) + twisted.length
  return ok({
    turnCount: turns.filter((turn) => !turn.whole).length,
    hold: holdAfter(turns),
    cycles,
    twisted,
    untouched: puzzle.pieces.length - touched,
    order: repeatsUntilBack(puzzle, turns),
  })
}

/** The finished puzzle after the turns, whole-puzzle turns taken back. Fails where `effectOf` does. */
export function stateMade(puzzle: Puzzle, turns: readonly Turn[]): Result<State> {
  const after = turnAll(puzzle, start(puzzle), turns)
  if (!after.ok) return after
  const state = rotateState(after.value, INVERSE[holdAfter(turns)])
  if (state.some((r, p) => puzzle.place[24 * p + r] === NO_PLACE))
    return fail(
      'out-of-shape',
      'After these turns the puzzle is out of shape, so its pieces lie in no places of the finished one. Add the turns that bring the shape back.',
    )
  return ok(state)
}

/** All places of a state in shape, in the rounds in which pieces go: those that stay are rounds of one. */
export function cyclesOf(puzzle: Puzzle, state: State): number[][] {
  const seen = new Set<number>()
  const rounds: number[][] = []
  state.forEach((_, first) => {
    if (seen.has(first)) return
    const round = cycleFrom(puzzle, state, first)
    round.forEach((place) => seen.add(place))
    rounds.push(round)
  })
  return rounds
}

/** Places in the order in which the piece of the first visits them. */
function cycleFrom(puzzle: Puzzle, state: State, first: number): number[] {
  const round = [first]
  for (let at = placeOf(puzzle, state, first); at !== first; at = placeOf(puzzle, state, at))
    round.push(at)
  return round
}

/**
 * The smallest number of repeats after which every piece is where it was, up to the hold. Each
 * piece comes back by itself after at most 24 repeats (its rotations), all together after the least
 * common multiple. The numbers of repeats that end in a hold are the multiples of one of them, so
 * dividing by primes while it still ends in a hold finds it: it may be far beyond counting by doing.
 *
 * @param only the pieces that are looked at
 */
export function repeatsUntilBack(
  puzzle: Puzzle,
  turns: readonly Turn[],
  only: readonly number[] = puzzle.pieces.map((_, p) => p),
): number {
  const once = sequenceOf(puzzle, turns)
  const repeated = [start(puzzle)]
  for (let n = 0; n < ROTATIONS; n++) repeated.push(doSequence(once, repeated[n]))
  const rounds = only.map((piece) =>
    repeated.findIndex((state, repeats) => repeats > 0 && state[piece] === repeated[0][piece]),
  )
  const endsInHold = (repeats: number) => {
    const turned = rounds.map((round, i) => repeated[repeats % round][only[i]])
    return turned.every((r) => r === turned[0]) && puzzle.holds.includes(turned[0])
  }
  let back = rounds.reduce(leastCommonMultiple, 1)
  for (const prime of PRIMES) while (back % prime === 0 && endsInHold(back / prime)) back /= prime
  return back
}

const ROTATIONS = 24
const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23]

function leastCommonMultiple(a: number, b: number): number {
  let [divisor, rest] = [a, b]
  while (rest > 0) [divisor, rest] = [rest, divisor % rest]
  return (a / divisor) * b
}
