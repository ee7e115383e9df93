/** What a position is, and what hands did to it: held against turns that lead home, and against what turns respect. */
import { outwardOf } from '../../analysis/anatomy'
import { twistOf, twistsAdd } from '../../analysis/invariants'
import { joinedAs } from '../../analysis/joined'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { holdOf, inHand, straysUnder } from '../../analysis/placements'
import { senseOf } from '../../analysis/sense'
import type { Puzzle } from '../../puzzle/compile'
import { IDENTITY, INVERSE, multiply, rotate, ROTATION_COUNT } from '../../rotation'
import { isInShape } from '../../scramble/scramble'
import { isSolved, rotateState, turn as turned, type State } from '../../state'
import { accountOf, isReachedInFrame } from '../../universal/account'
import { mend } from '../../universal/correct'
import { areMovesAll, hasMoves } from '../../universal/moves'
import { namedInOrbits, outsideOrbits } from '../../universal/namedInOrbits'
import { workOf } from '../../universal/orbitsAtWork'
import { reductionParity } from '../../universal/reductionParity'
import { canTakeShape } from '../../universal/reshape'
import { solveUniversally, turnsOfStep } from '../../universal/solve'
import { indexOf, type PieceId, type VerdictsKind } from '../claim'
import { indices, isHome, lyingIn, placeFilled, type Evidence, type Moment } from '../evidence'
import { MOST_STRAYS } from '../kinds'
import type { Judges } from './judge'

/** Whether turns that are found lead home: made on the engine, to the end. */
function leadsHome(puzzle: Puzzle, state: State): boolean {
  const way = solveUniversally(puzzle, state)
  if (!way.ok) return false
  let now = state
  for (const step of way.value.steps)
    for (const each of turnsOfStep(puzzle, step)) {
      const next = turned(puzzle, now, each)
      if (!next.ok) return false
      now = next.value
    }
  return isSolved(puzzle, now)
}

const framed = ({ state, frame }: Moment): State => rotateState(state, INVERSE[frame])

const known = new WeakMap<Moment, boolean>()

/** Whether no turns lead to a state, as it looks: by what turns respect, or because none that lead home are found. */
function isOutOfReach(puzzle: Puzzle, moment: Moment): boolean {
  const found = known.get(moment) ?? isOut(puzzle, moment.state)
  known.set(moment, found)
  return found
}

/** In whatever hold: hands may have turned the piece that is kept still. */
function isOut(puzzle: Puzzle, given: State): boolean {
  const hold = holdOf(puzzle, given)
  if (hold === undefined) return true
  const state = rotateState(given, INVERSE[hold])
  if (!isInShape(puzzle, state)) return !canTakeShape(puzzle, state) || !leadsHome(puzzle, given)
  if (outsideOrbits(puzzle, namedInOrbits(puzzle, state)).length > 0) return true
  if (!isReachedInFrame(puzzle, state)) return true
  return !leadsHome(puzzle, given)
}

/** Two pieces in each other's places, whichever way round each is put in. */
function exchanges(puzzle: Puzzle, state: State, p: number, q: number): State[] {
  const into = (piece: number, slot: number) =>
    Array.from({ length: ROTATION_COUNT }, (_, r) => r).filter(
      (r) => puzzle.slot[24 * piece + r] === slot,
    )
  const [from, to] = [puzzle.slot[24 * p + state[p]], puzzle.slot[24 * q + state[q]]]
  return into(p, to).flatMap((rp) =>
    into(q, from).map((rq) => {
      const next = new Uint8Array(state)
      next[p] = rp
      next[q] = rq
      return next
    }),
  )
}

/** A piece can be turned by so many degrees. */
const AMOUNTS: readonly number[] = [90, 120, 180]

interface Turned {
  readonly degrees?: number
  readonly isClockwise?: true
}

/** The state with a piece turned so in its place, as seen from outside. */
function turnedInPlace(puzzle: Puzzle, state: State, p: number, how: Turned): State | undefined {
  const r = Array.from({ length: ROTATION_COUNT }, (_, each) => each).find((each) => {
    if (
      each === IDENTITY ||
      puzzle.slot[24 * p + multiply(each, state[p])] !== puzzle.slot[24 * p + state[p]]
    )
      return false
    return isTurnedBy(senseOf(each, rotate(state[p], outwardOf(puzzle, p))), how)
  })
  if (r === undefined) return undefined
  const next = new Uint8Array(state)
  next[p] = multiply(r, state[p])
  return next
}

const isTurnedBy = ({ degrees, isClockwise }: ReturnType<typeof senseOf>, how: Turned): boolean =>
  degrees === how.degrees && (degrees === 180 || isClockwise === (how.isClockwise === true))

/** Of the orbit with some place, its sum with what looks home taken to be home. */
function sumAt({ puzzle, now }: Evidence, place: number, what: 'parity' | 'twist') {
  const { coordinates, vectorOf } = accountOf(puzzle)
  const vector = vectorOf(namedInOrbits(puzzle, framed(now)))
  const { orbits } = workOf(puzzle).sums
  const at = coordinates.findIndex(
    (each) => each.what === what && orbits[each.orbit].places.includes(place),
  )
  return at < 0 ? undefined : { orbit: orbits[coordinates[at].orbit], sum: vector[at] }
}

/** Whether these are whole orbits whose sums are not nothing. */
function areOff(evidence: Evidence, of: readonly PieceId[], what: 'parity' | 'twist'): boolean {
  const places = indices(evidence.puzzle, of)
  return (
    places.length > 0 &&
    places.every((p) => {
      const found = sumAt(evidence, p, what)
      return (
        found !== undefined &&
        found.sum !== 0 &&
        found.orbit.places.every((other) => places.includes(other))
      )
    })
  )
}

/** Whether these are all the places of one orbit, with that of the piece that is kept still. */
function isOneOrbit(puzzle: Puzzle, of: readonly PieceId[]): boolean {
  const sorted = (places: readonly number[]) => [...places].sort((a, b) => a - b).join()
  const own = sorted(indices(puzzle, of))
  return workOf(puzzle).sums.orbits.some(({ places }) => sorted(inHand(puzzle, places)) === own)
}

/** The pieces that lie in some places. */
const lying = ({ puzzle, now }: Evidence, of: readonly PieceId[]): number[] =>
  indices(puzzle, of).map((place) => lyingIn(puzzle, now, place))

/** Whether one of some states can be finished by turns, or at least needs less by hand than the one that is judged. */
const mends = (puzzle: Puzzle, now: State, states: readonly State[]): boolean =>
  states.some((state) => {
    const hold = holdOf(puzzle, state)
    if (hold === undefined) return false
    const inFrame = rotateState(state, INVERSE[hold])
    // Turns that bring a shape back are long to find, and one search for each pair would be too long.
    const isHomeward = isInShape(puzzle, inFrame)
      ? !isOut(puzzle, state)
      : canTakeShape(puzzle, inFrame)
    if (isHomeward) return true
    const needed = correctionsOf(puzzle, now)
    return needed > 1 && correctionsOf(puzzle, state) < needed
  })

/** So many corrections by hand make its sums come out. */
function correctionsOf(puzzle: Puzzle, state: State): number {
  const hold = holdOf(puzzle, state)
  const found = hold === undefined ? undefined : mend(puzzle, rotateState(state, INVERSE[hold]))
  return found ? found.corrections.length : Infinity
}

/** Where no turns take them; in shape also those that their own orbits never take there. */
function straysOf(puzzle: Puzzle, { state, frame }: Moment): number[] {
  const strays = straysUnder(puzzle, state, frame)
  const inFrame = rotateState(state, INVERSE[frame])
  if (strays.length > 0 || !isInShape(puzzle, inFrame)) return strays
  return outsideOrbits(puzzle, namedInOrbits(puzzle, inFrame))
}

/** Whether any two that lie in some places could be exchanged, tried on some pairs: they move as one orbit. */
const mendsAnyTwo = (of: readonly PieceId[], evidence: Evidence): boolean => {
  const { puzzle, now } = evidence
  return (
    isOneOrbit(puzzle, of) &&
    somePairs(lying(evidence, of)).every(([p, q]) =>
      mends(puzzle, now.state, exchanges(puzzle, now.state, p, q)),
    )
  )
}

function mendsTurned(puzzle: Puzzle, state: State, p: number, how: Turned): boolean {
  const after = turnedInPlace(puzzle, state, p, how)
  return after !== undefined && mends(puzzle, state, [after])
}

const mendsAnyOne = (of: readonly PieceId[], how: Turned, evidence: Evidence): boolean =>
  isOneOrbit(evidence.puzzle, of) &&
  lying(evidence, of).every((p) => mendsTurned(evidence.puzzle, evidence.now.state, p, how))

const isStray = ({ puzzle, now }: Evidence, piece: number): boolean => {
  const strays = straysOf(puzzle, now)
  return strays.length > 0 ? strays.includes(piece) : isOutOfReach(puzzle, now)
}

const somePairs = (all: readonly number[]): (readonly number[])[] =>
  [
    [0, 1],
    [0, all.length - 1],
    [Math.floor(all.length / 2), all.length - 1],
  ]
    .map((pair) => pair.map((i) => all[i]))
    .filter(([p, q]) => p !== undefined && q !== undefined && p !== q)

const notHome = (evidence: Evidence): number[] =>
  evidence.puzzle.pieces.flatMap((_, p) => (isHome(evidence.puzzle, evidence.now, p) ? [] : [p]))

export const OF_VERDICTS: Judges<VerdictsKind> = {
  leadsHome: ({}, { puzzle, now }) => !isOutOfReach(puzzle, now),
  nothingWrong: ({}, { puzzle, now }) => !isOutOfReach(puzzle, now),
  notHome: ({ count }, evidence) => notHome(evidence).length === count,
  traded({ pieces }, { puzzle, now }) {
    const [p, q] = indices(puzzle, pieces)
    const { classOf } = lookClassesOf(puzzle)
    return (
      p !== q &&
      classOf[p] === classOf[q] &&
      [p, q].every((each) => placeFilled(puzzle, now, each) !== each)
    )
  },
  turnedUnseen({ piece }, { puzzle, now }) {
    const p = indexOf(puzzle, piece)
    return placeFilled(puzzle, now, p) === p && now.state[p] !== now.frame && isHome(puzzle, now, p)
  },
  seemOdd: ({ of }, evidence) => areOff(evidence, of, 'parity'),
  seemTwisted: ({ of }, evidence) => areOff(evidence, of, 'twist'),
  onTheWay({ do: what }, { puzzle, now }) {
    const { classOf } = lookClassesOf(puzzle)
    // Looks home, and is not: in the place of an equal one, or turned in its own.
    const traded = puzzle.pieces.some((_, p) => {
      const place = placeFilled(puzzle, now, p)
      return place !== undefined && place !== p && classOf[place] === classOf[p]
    })
    return !isOutOfReach(puzzle, now) && (what === 'trade') === traded
  },
  joinedLike({ as, odd, twisted }, { puzzle, now }) {
    const off = joinedAs(puzzle, as) && reductionParity(puzzle, now.state)
    if (!off || off.size.join() !== as.join()) return false
    const of = (what: string) =>
      off.wrong.flatMap((each) => (each.what === what ? [each.kind] : [])).join()
    return odd.join() === of('parity') && twisted.join() === of('twist')
  },
  innerAgain: ({}, { puzzle, now }) => reductionParity(puzzle, now.state) !== undefined,
  offByTurn({ turn }, { puzzle, now }) {
    const made = puzzle.turnByName.get(turn)
    const after = made && turned(puzzle, now.state, made)
    return made?.whole === false && after?.ok === true && isSolved(puzzle, after.value)
  },
  turnedOnly({ pieces }, evidence) {
    const { puzzle, now } = evidence
    return (
      pieces.length > 0 &&
      notHome(evidence).join() ===
        indices(puzzle, pieces)
          .sort((a, b) => a - b)
          .join() &&
      indices(puzzle, pieces).every((p) => placeFilled(puzzle, now, p) === p)
    )
  },
  turnedBy({ piece, ...how }, { puzzle, now }) {
    const p = indexOf(puzzle, piece)
    const turn = multiply(INVERSE[now.frame], now.state[p])
    return (
      turn !== IDENTITY &&
      placeFilled(puzzle, now, p) === p &&
      isTurnedBy(senseOf(turn, outwardOf(puzzle, p)), how)
    )
  },
  impossible: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  noSuchShape: ({}, { puzzle, now }) =>
    !isInShape(puzzle, framed(now)) && isOutOfReach(puzzle, now),
  strayAt: ({ piece, place }, evidence) => {
    const { puzzle, now } = evidence
    const p = indexOf(puzzle, piece)
    const filled = placeFilled(puzzle, now, p)
    return (
      isStray(evidence, p) &&
      (filled === undefined ? undefined : puzzle.pieces[filled].id) === place
    )
  },
  moreStray: ({ count }, { puzzle, now }) => straysOf(puzzle, now).length === count + MOST_STRAYS,
  putRight({ do: what }, { puzzle, now }) {
    const strays = straysOf(puzzle, now)
    // Out of shape nobody sees which they are before it has its shape again.
    if (strays.length === 0) return isOutOfReach(puzzle, now) && what !== 'exchange'
    const [p, q] = strays
    const isTrade =
      strays.length === 2 && placeFilled(puzzle, now, p) === q && placeFilled(puzzle, now, q) === p
    return what === (isTrade ? 'exchange' : strays.length === 1 ? 'turn' : 'putBack')
  },
  smallGroup: ({ of }, { puzzle, now }) => isOneOrbit(puzzle, of) && isOutOfReach(puzzle, now),
  exchangedByHand: ({ of }, { puzzle, now }) => isOneOrbit(puzzle, of) && isOutOfReach(puzzle, now),
  exchangeAny: ({ of }, evidence) => mendsAnyTwo(of, evidence),
  // By how much is said by what mends it; here only whether it is a flip.
  turnedByHand({ of, degrees, sum, isClockwise }, evidence) {
    const { puzzle, now } = evidence
    if (!isOneOrbit(puzzle, of) || !AMOUNTS.includes(degrees) || !isOutOfReach(puzzle, now))
      return false
    if (sum === undefined) return true
    const [first] = indices(puzzle, of)
    const off = sumAt(evidence, first, 'twist')
    const turn = off ? twistOf(off.orbit, off.sum) : IDENTITY
    const how = { degrees: sum, isClockwise }
    return turn !== IDENTITY && isTurnedBy(senseOf(turn, outwardOf(puzzle, first)), how)
  },
  turnAny: ({ of, ...how }, evidence) => mendsAnyOne(of, how, evidence),
  exchangeThese({ pieces }, { puzzle, now }) {
    const [p, q] = indices(puzzle, pieces)
    return p !== q && mends(puzzle, now.state, exchanges(puzzle, now.state, p, q))
  },
  turnThis: ({ piece, ...how }, { puzzle, now }) =>
    mendsTurned(puzzle, now.state, indexOf(puzzle, piece), how),
  moreByHand: ({}, { puzzle, now }) => correctionsOf(puzzle, now.state) === Infinity,
  // The position that a wish would make of the finished puzzle.
  noTurnsDo: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  cannotLie: ({ piece }, evidence) => isStray(evidence, indexOf(evidence.puzzle, piece)),
  alsoExchanged: ({ of }, evidence) => mendsAnyTwo(of, evidence),
  alsoTurned: ({ of, ...how }, evidence) => mendsAnyOne(of, how, evidence),
  countedOtherwise: ({}, { puzzle, now }) => correctionsOf(puzzle, now.state) === Infinity,
  notProved: ({ why }, { puzzle, now }) =>
    ({
      blocked: () => !hasMoves(puzzle),
      twists: () => hasMoves(puzzle) && !twistsAdd(workOf(puzzle).sums.orbits),
      noShapeWay: () => !isInShape(puzzle, framed(now)),
      outOfShape: () => hasMoves(puzzle) && !areMovesAll(puzzle),
      notServed: () => hasMoves(puzzle) && !leadsHome(puzzle, now.state),
    })[why](),
}
