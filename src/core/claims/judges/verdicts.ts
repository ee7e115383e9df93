/** What a position is, and what hands did to it: held against turns that lead home, and against the group itself. */
import { outwardOf } from '../../analysis/anatomy'
import { frameOf } from '../../analysis/frame'
import { twistUnit } from '../../analysis/invariants'
import { joinedAs } from '../../analysis/joined'
import { lookClassesOf } from '../../analysis/lookAlikes'
import { handReachOf, holdOf, straysUnder } from '../../analysis/placements'
import { senseOf } from '../../analysis/sense'
import type { Puzzle } from '../../puzzle/compile'
import { IDENTITY, INVERSE, multiply, rotate, ROTATION_COUNT, type Rotation } from '../../rotation'
import { isInShape } from '../../scramble/scramble'
import { isSolved, rotateState, turn as turned, type State } from '../../state'
import { mend } from '../../universal/correct'
import { reductionParity } from '../../universal/reductionParity'
import { accountOf, isReachedInFrame } from '../../universal/account'
import { hasMoves } from '../../universal/moves'
import { namedInOrbits, outsideOrbits } from '../../universal/namedInOrbits'
import { workOf } from '../../universal/orbitsAtWork'
import { canTakeShape } from '../../universal/reshape'
import { solveUniversally, turnsOfStep } from '../../universal/solve'
import { indexOf, type PieceId, type VerdictsKind } from '../claim'
import { indices, isHome, lyingIn, placeFilled, type Evidence, type Moment } from '../evidence'
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

/** What the twists of the orbit of a place come to, as one turn of it. */
function twistAt(evidence: Evidence, place: number): Rotation {
  const found = sumAt(evidence, place, 'twist')
  const unit = found && twistUnit(found.orbit)
  let turn = IDENTITY
  for (let k = 0; found && unit !== undefined && k < found.sum; k++) turn = multiply(unit, turn)
  return turn
}

/** Whether these are all the places of one orbit, that of the piece that is kept still among them. */
function isOneOrbit(puzzle: Puzzle, of: readonly PieceId[]): boolean {
  const places = indices(puzzle, of)
  const still = frameOf(puzzle).piece
  return workOf(puzzle).sums.orbits.some((orbit) => {
    const isStill = (p: number) =>
      p === still &&
      handReachOf(puzzle)[p].some((r) => orbit.places.includes(puzzle.place[24 * p + r]))
    return (
      orbit.places.every((p) => places.includes(p)) &&
      places.every((p) => orbit.places.includes(p) || isStill(p))
    )
  })
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

const isStray = ({ puzzle, now }: Evidence, piece: number): boolean => {
  const strays = straysOf(puzzle, now)
  return strays.length > 0 ? strays.includes(piece) : isOutOfReach(puzzle, now)
}

/** Of more pairs than these three nothing else would come out: they move as one orbit. */
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
  onTheWay: ({}, { puzzle, now }) => !isOutOfReach(puzzle, now),
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
  moreStray: ({ count }, { puzzle, now }) => straysOf(puzzle, now).length === count + TOLD_STRAYS,
  putRight: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  smallGroup: ({ of }, { puzzle, now }) => isOneOrbit(puzzle, of) && isOutOfReach(puzzle, now),
  exchangedByHand: ({ of }, { puzzle, now }) => isOneOrbit(puzzle, of) && isOutOfReach(puzzle, now),
  exchangeAny({ of, ...how }, evidence) {
    const { puzzle, now } = evidence
    if (!isOneOrbit(puzzle, of)) return false
    const canTurn = how.degrees === undefined || isAmount(how)
    return (
      canTurn &&
      somePairs(lying(evidence, of)).every(([p, q]) =>
        mends(puzzle, now.state, exchanges(puzzle, now.state, p, q)),
      )
    )
  },
  turnedByHand({ of, degrees, sum, isClockwise }, evidence) {
    const { puzzle, now } = evidence
    if (!isOneOrbit(puzzle, of) || !isAmount({ degrees }) || !isOutOfReach(puzzle, now))
      return false
    if (sum === undefined) return true
    const [first] = indices(puzzle, of)
    const turn = twistAt(evidence, first)
    const how = { degrees: sum, isClockwise }
    return turn !== IDENTITY && isTurnedBy(senseOf(turn, outwardOf(puzzle, first)), how)
  },
  turnAny({ of, ...how }, evidence) {
    const { puzzle, now } = evidence
    return (
      isOneOrbit(puzzle, of) &&
      lying(evidence, of).every((p) => {
        const after = turnedInPlace(puzzle, now.state, p, how)
        return after !== undefined && mends(puzzle, now.state, [after])
      })
    )
  },
  exchangeThese: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  turnThis: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  moreByHand: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  // The position that a wish would make of the finished puzzle.
  noTurnsDo: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  cannotLie: ({ piece }, evidence) => isStray(evidence, indexOf(evidence.puzzle, piece)),
  alsoExchanged({ of }, evidence) {
    const { puzzle, now } = evidence
    return (
      isOneOrbit(puzzle, of) &&
      somePairs(lying(evidence, of)).every(([p, q]) =>
        mends(puzzle, now.state, exchanges(puzzle, now.state, p, q)),
      )
    )
  },
  alsoTurned({ of, ...how }, evidence) {
    const { puzzle, now } = evidence
    return (
      isOneOrbit(puzzle, of) &&
      lying(evidence, of).every((p) => {
        const after = turnedInPlace(puzzle, now.state, p, how)
        return after !== undefined && mends(puzzle, now.state, [after])
      })
    )
  },
  countedOtherwise: ({}, { puzzle, now }) => isOutOfReach(puzzle, now),
  notProved({ why }, { puzzle }) {
    if (why === 'blocked') return !hasMoves(puzzle)
    return hasMoves(puzzle)
  },
}

const isAmount = ({ degrees }: Turned): boolean => [90, 120, 180].includes(degrees ?? 0)

/** So many strays have names. */
const TOLD_STRAYS = 3
