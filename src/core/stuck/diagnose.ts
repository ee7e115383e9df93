/**
 * Stuck: what a position that looks impossible really is. Decided by arithmetic over all ways of telling
 * look-alikes apart at once, or proved by turns that lead home; where neither is to be had, the verdict
 * is that it is not known.
 */
import { derivedOrder } from '../analysis/derivedOrders'
import { lookAlikesOf, lookClassesOf } from '../analysis/lookAlikes'
import { holdOf, straysUnder } from '../analysis/placements'
import { leadersOf } from '../analysis/riders'
import { rehold } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { IDENTITY, INVERSE, type Rotation } from '../rotation'
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
import { areMovesAll, hasMoves } from '../universal/moves'
import { namedInOrbits, outsideOrbits } from '../universal/namedInOrbits'
import { guessedPlan, knownPlanOf } from '../universal/orbitPlan'
import { workOf } from '../universal/orbitsAtWork'
import { canTakeShape, reshape } from '../universal/reshape'
import { solveUniversally } from '../universal/solve'
import { mend, mendByTrial } from '../universal/correct'
import type { Finding, OrbitAccount, Verdict, WhyNotKnown } from './finding'
import { reductionParity } from '../universal/reductionParity'
import { tell } from './told'
import type { Said } from '../claims/claim'

export interface Diagnosis {
  readonly verdict: Verdict
  readonly finding: Finding
  /** What it is, why, and what to do. */
  readonly said: Said
  /** The hold in which it was given: places are called in it. */
  readonly hold: Rotation
  /** Where the pieces lie that it speaks of, as slots, in the hold that was given. */
  readonly slots: readonly number[]
  readonly account: readonly OrbitAccount[]
  /** As given, with look-alikes told apart as what is said has it. */
  readonly told: State
  /** The same where turns lead home from it; undefined where none do. */
  readonly state?: State
}

/** Judges any state, in any hold: also such as no turns lead to. */
export function diagnose(puzzle: Puzzle, given: State): Diagnosis {
  const hold = holdOf(puzzle, given)
  if (hold === undefined) return withTold(puzzle, nearestHold(puzzle, given), given, straying)
  return withTold(puzzle, hold, given, (state) => findingOf(puzzle, state))

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

function withTold(
  puzzle: Puzzle,
  hold: Rotation,
  given: State,
  find: (state: State) => Found,
): Diagnosis {
  const framed = rotateState(given, INVERSE[hold])
  const { finding: inFrame, account, state } = find(framed)
  const finding = inHold(puzzle, inFrame, hold)
  const { said, pieces } = tell(puzzle, state, finding, account)
  const held = rotateState(state, hold)
  return {
    verdict: finding.kind,
    finding,
    said,
    hold,
    slots: pieces.map((p) => puzzle.slot[24 * p + held[p]]),
    account,
    told: held,
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
  if (!turns)
    return { finding: { kind: 'not known', why: 'noShapeWay' }, account: [], state: given }
  // Judged in shape, and told for the state before it.
  const found = inShape(puzzle, must(turnAll(puzzle, given, turns)))
  const state = must(turnAll(puzzle, found.state, inverseOf(puzzle, turns)))
  if (!leadsHome(found.finding)) return { ...found, state }
  const wrong = notHome(puzzle, given)
  return { ...found, finding: { kind: 'not finished', wrong, shape: true }, state }
}

function whyNotJudged(puzzle: Puzzle): WhyNotKnown | undefined {
  if (!hasMoves(puzzle)) return 'blocked'
  return twistsAdd(workOf(puzzle).sums.orbits) ? undefined : 'twists'
}

const notHome = (puzzle: Puzzle, state: State): number[] =>
  Array.from(state).flatMap((r, p) => (looksHome(puzzle, p, r) ? [] : [p]))

/** For a state in the frame and in shape. */
function inShape(puzzle: Puzzle, given: State): Found {
  const found = judgedInShape(puzzle, given)
  if (found.finding.kind !== 'assembly' || areMovesAll(puzzle)) return found
  return { ...found, finding: { kind: 'not known', why: 'outOfShape' } }
}

function judgedInShape(puzzle: Puzzle, given: State): Found {
  const inOrbits = namedInOrbits(puzzle, given)
  const strays = outsideOrbits(puzzle, inOrbits)
  if (strays.length > 0)
    return {
      finding: { kind: 'assembly', strays, corrections: [], shape: false },
      account: [],
      state: inOrbits,
    }
  const { span } = accountOf(puzzle)
  const account = accountIn(puzzle, given)
  const told = named(puzzle, given, (vector) => isNothing(span, vector))
  if (!told) {
    const state = namedInOrbits(puzzle, given)
    const mended = mend(puzzle, given)
    // Where a small group decides too, sums that come out are not enough.
    if (mended && !isDecidedBySums(puzzle) && !solveUniversally(puzzle, mended.state).ok)
      return { finding: outsideGroup(puzzle, given), account, state }
    const corrections = mended?.corrections ?? []
    const finding: Finding = { kind: 'assembly', strays: [], corrections, shape: false }
    const group = isDecidedBySums(puzzle)
      ? undefined
      : smallOrbitsOf(puzzle).find((places) =>
          corrections.some(({ pieces }) => pieces.some((p) => places.includes(p))),
        )
    return { finding: group ? { ...finding, group } : finding, account, state }
  }
  const { state } = told
  const misplaced = misridden(puzzle, given, state)
  if (misplaced.length > 0)
    return {
      finding: { kind: 'assembly', strays: misplaced, corrections: [], shape: false },
      account,
      state: given,
    }
  if (!isDecidedBySums(puzzle)) {
    const way = solveUniversally(puzzle, given)
    if (!way.ok && way.problem.code === 'unreachable')
      return { finding: outsideGroup(puzzle, given), account, state }
    if (!way.ok) return { finding: { kind: 'not known', why: 'notServed' }, account, state }
  }
  return { finding: possible(puzzle, given, told), account, state }
}

/** The orbits that are permuted by a smaller group than sums allow, where sums do not decide. */
function smallOrbitsOf(puzzle: Puzzle): (readonly number[])[] {
  const { first, settled } = knownPlanOf(puzzle) ?? guessedPlan(puzzle)
  const orbits = first.length > 0 ? first.flat() : settled
  return orbits.map((o) => workOf(puzzle).orbits[o].orbit.places)
}

/** Whatever the sums, the orbits that are settled first have no such arrangement. */
function outsideGroup(puzzle: Puzzle, given: State): Finding {
  const small = smallOrbitsOf(puzzle)
  const isReached = (state: State) => solveUniversally(puzzle, state).ok
  const correction = mendByTrial(puzzle, given, small.flat(), isReached)
  const natural = namedInOrbits(puzzle, given)
  const told = correction?.pieces ?? notHome(puzzle, natural)
  return {
    kind: 'assembly',
    strays: [],
    corrections: correction ? [correction] : [],
    shape: false,
    group: small.find((places) => told.some((p) => places.includes(p))) ?? small.flat(),
  }
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
  const natural = namedInOrbits(puzzle, given)
  const looksDone = traded.every(({ pieces }) => pieces.every((p) => natural[p] === IDENTITY))
  if (!isNatural && looksDone && isOddEnding(accountIn(puzzle, given)))
    return { kind: 'look-alike', traded: traded.map(({ pieces }) => pieces), wrong }
  const turn = layerOff(puzzle, state)
  if (turn) return { kind: 'frame', turn, turned: wrong }
  if (wrong.every((p) => isSingle(puzzle, p))) return { kind: 'frame', turned: wrong }
  const parity = reductionParity(puzzle, given)
  return parity
    ? { kind: 'reduction parity', parity }
    : { kind: 'not finished', wrong, shape: false }
}

/** As long as more than this lies wrong there is ordinary work to do. */
const LEFT_OVER = 6

/**
 * Whether it is an ending, and an odd one: little lies wrong, and in some orbit so little that work on it alone
 * can never mend it (two pieces to exchange, or two at most to twist whose twists do not add up). Before that a
 * scramble is nothing but a scramble, whatever has become of pieces that cannot be told apart.
 */
const isOddEnding = (account: readonly OrbitAccount[]): boolean =>
  account.reduce((sum, { wrong }) => sum + wrong, 0) <= LEFT_OVER &&
  account.some(
    ({ wrong, parity, twist }) =>
      (parity === 1 && wrong === 2) || (twist !== undefined && twist.sum !== 0 && wrong <= 2),
  )

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
  const naturally = namedInOrbits(puzzle, given)
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
