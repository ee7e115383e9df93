/**
 * Stuck: what a position that looks impossible really is. Decided by arithmetic over all ways of telling
 * look-alikes apart at once, or proved by turns that lead home; where neither is to be had, the verdict
 * is that it is not known.
 */
import { derivedOrder } from '../analysis/derivedOrders'
import { lookAlikesOf, lookClassesOf, namedAtHome } from '../analysis/lookAlikes'
import { holdOf, straysUnder } from '../analysis/placements'
import { leadersOf } from '../analysis/riders'
import { rehold } from '../notation/rewrite'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../rotation'
import { isInShape } from '../scramble/scramble'
import {
  blockOf,
  inverseOf,
  isSolved,
  looksHome,
  rotateState,
  turnAll,
  turnFreely,
  type State,
} from '../state'
import { must } from '../result'
import { isNothing, twistsAdd } from '../analysis/invariants'
import { accountOf, named, type Naming } from '../universal/account'
import { hasMoves } from '../universal/moves'
import { workOf } from '../universal/orbitsAtWork'
import { canTakeShape, reshape } from '../universal/reshape'
import { solveUniversally } from '../universal/solve'
import { mend } from './correct'
import type { Finding, OrbitAccount, Verdict } from './finding'
import { reductionParity } from './joined'
import { tell } from './words'

export interface Diagnosis {
  readonly verdict: Verdict
  readonly finding: Finding
  /** What it is, why, and what to do; in words. */
  readonly sentences: readonly string[]
  /** Where the pieces lie that it speaks of, as slots, in the hold that was given. */
  readonly slots: readonly number[]
  readonly account: readonly OrbitAccount[]
  /** As given, with look-alikes told apart so that turns lead home; undefined where none do. */
  readonly state?: State
}

/** Judges any state, in any hold: also such as no turns lead to. */
export function diagnose(puzzle: Puzzle, given: State, scheme: Scheme): Diagnosis {
  const hold = holdOf(puzzle, given)
  if (hold === undefined)
    return withWords(puzzle, scheme, nearestHold(puzzle, given), given, straying)
  return withWords(puzzle, scheme, hold, given, (state) => findingOf(puzzle, state))

  function straying(state: State): Found {
    const strays = straysUnder(puzzle, state, IDENTITY)
    return {
      finding: { kind: 'assembly', strays, corrections: [], shape: false },
      account: [],
      state,
    }
  }
}

interface Found {
  readonly finding: Finding
  readonly account: readonly OrbitAccount[]
  /** What it is told about, in the frame: as given, with look-alikes told apart in some way. */
  readonly state: State
}

function withWords(
  puzzle: Puzzle,
  scheme: Scheme,
  hold: Rotation,
  given: State,
  find: (state: State) => Found,
): Diagnosis {
  const framed = rotateState(given, INVERSE[hold])
  const { finding: inFrame, account, state } = find(framed)
  const finding = inHold(puzzle, inFrame, hold)
  const { sentences, pieces } = tell({ puzzle, scheme, hold, state }, finding, account)
  const held = rotateState(state, hold)
  return {
    verdict: finding.kind,
    finding,
    sentences,
    slots: pieces.map((p) => puzzle.slot[24 * p + held[p]]),
    account,
    state: leadsHome(finding) ? held : undefined,
  }
}

/** A turn is named as it is made in the hold that was given. */
const inHold = (puzzle: Puzzle, finding: Finding, hold: Rotation): Finding =>
  finding.kind === 'frame' && finding.turn
    ? { ...finding, turn: rehold(puzzle, [finding.turn], hold)[0] }
    : finding

const leadsHome = ({ kind }: Finding): boolean => kind !== 'assembly' && kind !== 'not known'

/** The hold under which the fewest pieces stray. */
const nearestHold = (puzzle: Puzzle, given: State): Rotation =>
  puzzle.holds.reduce((best, hold) =>
    straysUnder(puzzle, given, hold).length < straysUnder(puzzle, given, best).length ? hold : best,
  )

/** For a state in the frame, every piece where turns may take it. */
function findingOf(puzzle: Puzzle, given: State): Found {
  if (isSolved(puzzle, given)) return { finding: { kind: 'home' }, account: [], state: given }
  const why = whyNotJudged(puzzle)
  if (why) return { finding: { kind: 'not known', why }, account: [], state: given }
  if (isInShape(puzzle, given)) return inShape(puzzle, given)
  const unreached: Finding = { kind: 'assembly', strays: [], corrections: [], shape: true }
  if (!canTakeShape(puzzle, given)) return { finding: unreached, account: [], state: given }
  const turns = reshape(puzzle, given)
  if (!turns) return { finding: { kind: 'not known', why: NO_WAY }, account: [], state: given }
  // Judged in shape, and told for the state before it.
  const found = inShape(puzzle, must(turnAll(puzzle, given, turns)))
  const state = must(turnAll(puzzle, found.state, inverseOf(puzzle, turns)))
  if (!leadsHome(found.finding)) return { ...found, state }
  const wrong = notHome(puzzle, given)
  return { ...found, finding: { kind: 'not finished', wrong, shape: true }, state }
}

const NO_WAY = 'No turns were found that bring the shape back.'

function whyNotJudged(puzzle: Puzzle): string | undefined {
  if (!hasMoves(puzzle))
    return 'Turns of this puzzle can be blocked, so sums alone do not tell whether turns lead here.'
  if (!twistsAdd(workOf(puzzle).sums.orbits))
    return 'Some pieces of this puzzle turn about more than one axis in their places, so their twists are no sum.'
  return undefined
}

const notHome = (puzzle: Puzzle, state: State): number[] =>
  Array.from(state).flatMap((r, p) => (looksHome(puzzle, p, r) ? [] : [p]))

/** For a state in the frame and in shape. */
function inShape(puzzle: Puzzle, given: State): Found {
  const astray = outsideOrbits(puzzle, given)
  if (astray.length > 0) return outside(puzzle, given, astray)
  const { span } = accountOf(puzzle)
  const account = accountIn(puzzle, given)
  const told = named(puzzle, given, (vector) => isNothing(span, vector))
  if (!told) {
    const state = namedAtHome(puzzle, given)
    const corrections = mend(puzzle, given)?.corrections ?? []
    return { finding: { kind: 'assembly', strays: [], corrections, shape: false }, account, state }
  }
  const { state } = told
  const strays = misridden(puzzle, given, state)
  if (strays.length > 0)
    return {
      finding: { kind: 'assembly', strays, corrections: [], shape: false },
      account,
      state: given,
    }
  if (!isDecidedBySums(puzzle)) {
    const way = solveUniversally(puzzle, given)
    if (!way.ok)
      return { finding: { kind: 'not known', why: way.problem.sentence }, account, state }
  }
  return { finding: possible(puzzle, given, told), account, state }
}

/** Pieces in shape that lie where their orbit has no place: only where the shape changes on the way. */
function outsideOrbits(puzzle: Puzzle, given: State): number[] {
  const state = namedAtHome(puzzle, given)
  return workOf(puzzle).sums.orbits.flatMap(({ places, reference, orientations }) =>
    places.filter((p, i) => {
      const q = places.indexOf(puzzle.place[24 * p + state[p]])
      // Or turned there as no turns leave it.
      const canLook = (o: Rotation) => {
        const r = multiply(reference[q], multiply(o, INVERSE[reference[i]]))
        return puzzle.look[24 * p + r] === puzzle.look[24 * p + state[p]]
      }
      return q < 0 || !orientations.some(canLook)
    }),
  )
}

function outside(puzzle: Puzzle, given: State, strays: readonly number[]): Found {
  const { classOf } = lookClassesOf(puzzle)
  const state = namedAtHome(puzzle, given)
  const isUnique = (p: number) => classOf.filter((other) => other === classOf[p]).length === 1
  const finding: Finding = strays.every(isUnique)
    ? { kind: 'assembly', strays, corrections: [], shape: false }
    : {
        kind: 'not known',
        why: 'Equal pieces lie in places that turns keep apart, and not every way of telling them apart was tried.',
      }
  return { finding, account: [], state }
}

/**
 * Pieces that do not ride where they should: what lies beside a piece that moves as one with others must
 * look like one of them. Said only of leaders that can be told from all others.
 */
function misridden(puzzle: Puzzle, given: State, named: State): number[] {
  const leaders = leadersOf(puzzle)
  const { classSize } = lookClassesOf(puzzle)
  const { unseen } = lookAlikesOf(puzzle)
  const at = new Map(Array.from(given, (r, p) => [puzzle.slot[24 * p + r], p] as const))
  return puzzle.pieces.flatMap((_, p) => {
    const leader = leaders[p]
    if (leader === p || classSize[leader] !== 1 || unseen[leader].length > 1) return []
    const due = 24 * p + named[leader]
    const there = at.get(puzzle.slot[due])
    if (there === undefined || puzzle.look[24 * there + given[there]] === puzzle.look[due])
      return []
    return [there]
  })
}

/** What a state is that turns lead to. */
function possible(
  puzzle: Puzzle,
  given: State,
  { state, traded, isNatural }: Naming & { readonly isNatural: boolean },
): Finding {
  const wrong = notHome(puzzle, state)
  // Equal pieces that are still on their way can be traded on it: only what looks finished misleads.
  const natural = namedAtHome(puzzle, given)
  const looksDone = traded.every(({ pieces }) => pieces.every((p) => natural[p] === IDENTITY))
  if (!isNatural && looksDone)
    return { kind: 'look-alike', traded: traded.map(({ pieces }) => pieces), wrong }
  const turn = layerOff(puzzle, state)
  if (turn) return { kind: 'frame', turn, turned: wrong }
  if (wrong.every((p) => isSingle(puzzle, p))) return { kind: 'frame', turned: wrong }
  const parity = reductionParity(puzzle, given)
  return parity
    ? { kind: 'reduction parity', parity }
    : { kind: 'not finished', wrong, shape: false }
}

/** Whether parities and twist sums are all that turns respect, as the order of the group says. */
function isDecidedBySums({ definition }: Puzzle): boolean {
  const order = derivedOrder(definition)
  return order !== undefined && order.index !== null && order.index === order.indexByInvariants
}

const isSingle = (puzzle: Puzzle, piece: number): boolean =>
  workOf(puzzle).sums.orbits.some(({ places }) => places.length === 1 && places[0] === piece)

/** The one turn of a layer that finishes the puzzle. */
const layerOff = (puzzle: Puzzle, state: State): Turn | undefined =>
  puzzle.turns
    .filter(
      (turn) =>
        !turn.whole &&
        !blockOf(puzzle, state, turn) &&
        isSolved(puzzle, turnFreely(puzzle, state, turn, new Uint8Array(state.length))),
    )
    .sort((a, b) => a.name.length - b.name.length)[0]

function accountIn(puzzle: Puzzle, given: State): OrbitAccount[] {
  const { coordinates, vectorOf } = accountOf(puzzle)
  const naturally = namedAtHome(puzzle, given)
  const vector = vectorOf(naturally)
  const { orbits } = workOf(puzzle).sums
  return [...new Set(coordinates.map(({ orbit }) => orbit))].map((orbit): OrbitAccount => {
    const { places, orientations } = orbits[orbit]
    const at = (what: 'parity' | 'twist') => {
      const c = coordinates.findIndex((each) => each.orbit === orbit && each.what === what)
      return c < 0 ? undefined : vector[c]
    }
    const twist = at('twist')
    return {
      places,
      wrong: places.filter((p) => !looksHome(puzzle, p, naturally[p])).length,
      parity: at('parity'),
      twist: twist === undefined ? undefined : { sum: twist, ways: orientations.length },
    }
  })
}
