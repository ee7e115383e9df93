/** What a sequence does on a puzzle, in words and as arrows from place to place. All of it is read off the engine. */
import { turnedInPlace } from '../analysis/anatomy'
import { cyclesOf, repeatsUntilBack, stateMade } from '../analysis/effect'
import { placeNamesOf } from '../analysis/placeNames'
import { dot, unit } from '../geometry/vector'
import { handCost, type Hand } from '../notation/handCost'
import { countJoined, holdAfter } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import { ok, type Result } from '../result'
import { rotate, type Rotation } from '../rotation'
import { start, turnFreely, type State } from '../state'
import { baseKind, capital, inWords, kindPlural, listed, plural, times } from '../phrases'

export interface Hop {
  /** Places, by the pieces whose homes they are. */
  readonly from: number
  readonly to: number
}

export interface Doing {
  /** The finished puzzle afterwards, whole-puzzle turns taken back. */
  readonly state: State
  readonly sentences: readonly string[]
  /** A few words for a list. */
  readonly summary: string
  /** What goes where; what stays in its place is not among them. */
  readonly hops: readonly Hop[]
  /** Turned in their places, as it is seen or not. */
  readonly turned: readonly number[]
  /** Moved on the way and back at the end. */
  readonly borrowed: readonly number[]
  readonly turnCount: number
  readonly quarterCount: number
  readonly ease: Readonly<Record<Hand, number>>
  /** Repeats after which everything is back. */
  readonly order: number
  /** The same for each kind of piece that it moves or turns. */
  readonly orders: readonly { readonly kind: string; readonly order: number }[]
}

/** Rounds that are told one by one; of more than these only the lengths are. */
const MOST_TOLD = 4
const LONGEST_TOLD = 4

/** Fails if a turn is blocked, or if the puzzle is out of shape afterwards. */
export function doingOf(puzzle: Puzzle, turns: readonly Turn[]): Result<Doing> {
  const made = stateMade(puzzle, turns)
  if (!made.ok) return made
  const state = made.value
  const rounds = cyclesOf(puzzle, state).filter((round) => round.length > 1)
  const spun = turnedInPlace(puzzle, state)
  const moved = new Set([...rounds.flat(), ...spun.map(({ piece }) => piece)])
  const borrowed = travelled(puzzle, turns).filter((p) => !moved.has(p))
  const kinds = [...new Set([...moved].map((p) => puzzle.pieces[p].kind))]
  const ofKind = (kind: string) =>
    puzzle.pieces.flatMap((piece, p) => (piece.kind === kind ? [p] : []))
  const { turnCount, quarterCount } = countJoined(puzzle, turns)
  const order = repeatsUntilBack(puzzle, turns)
  const orders = kinds.map((kind) => ({
    kind,
    order: repeatsUntilBack(puzzle, turns, ofKind(kind)),
  }))
  return ok({
    state,
    sentences: [
      ...roundWords(puzzle, state, rounds),
      ...spinWords(puzzle, spun),
      ...(moved.size === 0 ? ['Nothing is changed by it.'] : []),
      ...borrowedWords(puzzle, borrowed, moved.size),
      ...holdWords(puzzle, holdAfter(turns)),
      ...orderWords(order, orders),
    ],
    summary: summaryOf(puzzle, rounds, spun.length),
    hops: rounds.flatMap((round) =>
      round.map((from, i) => ({ from, to: round[(i + 1) % round.length] })),
    ),
    turned: spun.map(({ piece }) => piece),
    borrowed,
    turnCount,
    quarterCount,
    ease: { right: handCost(turns), left: handCost(turns, 'left') },
    order,
    orders,
  })
}

/** Pieces that any turn carries, other than turns of the whole puzzle. */
function travelled(puzzle: Puzzle, turns: readonly Turn[]): number[] {
  const carried = new Set<number>()
  let state = start(puzzle)
  for (const turn of turns) {
    const next = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
    if (!turn.whole) next.forEach((r, p) => r !== state[p] && carried.add(p))
    state = next
  }
  return [...carried].sort((a, b) => a - b)
}

const kindsOf = (puzzle: Puzzle, places: readonly number[]): string =>
  listed([...new Set(places.map((p) => kindPlural(baseKind(puzzle.pieces[p].kind))))])

/** Whether no place of a round looks otherwise afterwards. */
const isUnseen = (puzzle: Puzzle, state: State, round: readonly number[]): boolean =>
  round.every((p, i) => {
    const to = round[(i + 1) % round.length]
    return puzzle.look[24 * p + state[p]] === puzzle.look[24 * to]
  })

function roundWords(puzzle: Puzzle, state: State, rounds: readonly number[][]): string[] {
  if (rounds.length > MOST_TOLD || rounds.some((round) => round.length > LONGEST_TOLD)) {
    if (rounds.length === 0) return []
    const kinds = [...new Set(rounds.map((round) => kindsOf(puzzle, round)))]
    return kinds.map((kind) => {
      const own = rounds.filter((round) => kindsOf(puzzle, round) === kind)
      const lengths = own.map((round) => round.length).sort((a, b) => b - a)
      const count = lengths.reduce((sum, n) => sum + n, 0)
      const all = `${capital(inWords(count))} ${kind}`
      return lengths[0] === 2
        ? `${all} change places two by two.`
        : `${all} go round, in rounds of ${listed(lengths.map(inWords))}.`
    })
  }
  return rounds.map((round) => {
    const { names } = placeNamesOf(puzzle, 0)
    const hops = round.map((from, i) => {
      const to = round[(i + 1) % round.length]
      return `${names[from]} to ${names[to]}${arrivalWords(puzzle, from, state[from])}`
    })
    const what =
      round.length === 2
        ? `Two ${kindsOf(puzzle, round)} change places`
        : `${capital(inWords(round.length))} ${kindsOf(puzzle, round)} go round`
    const unseen = isUnseen(puzzle, state, round) ? ' They look alike: none of it shows.' : ''
    return `${what}: ${hops.join('; ')}.${unseen}`
  })
}

/** Which way a side of it looks on arrival, where its sides look straight up, down, ahead or aside. */
function arrivalWords(puzzle: Puzzle, piece: number, rotation: Rotation): string {
  const pose = poseOf(puzzle.definition)
  const lookOf = (normal: Parameters<typeof posed>[1]): Direction | undefined =>
    DIRECTIONS.find(({ vector }) => dot(vector, unit(posed(pose, normal))) > 1 - 1e-6)
  const sides = puzzle.pieces[piece].faces.flatMap(({ normal }) => {
    const [was, is] = [lookOf(normal), lookOf(rotate(rotation, normal))]
    return was && is ? [{ was, is }] : []
  })
  if (puzzle.pieces[piece].faces.length < 2 || sides.length === 0) return ''
  const [side] = [...sides].sort((a, b) => DIRECTIONS.indexOf(a.was) - DIRECTIONS.indexOf(b.was))
  return side.was === side.is
    ? ` (what looks ${side.was.toward} still does)`
    : ` (what looked ${side.was.toward} looks ${side.is.toward})`
}

function spinWords(puzzle: Puzzle, spun: ReturnType<typeof turnedInPlace>): string[] {
  const { names } = placeNamesOf(puzzle, 0)
  const ways = [...new Set(spun.map(({ turned, isSeen }) => `${turned}|${isSeen}`))]
  return ways.map((way) => {
    const own = spun.filter(({ turned, isSeen }) => `${turned}|${isSeen}` === way)
    const [{ turned, isSeen }] = own
    const places = own.map(({ piece }) => piece)
    const count =
      places.length === 1
        ? capital(names[places[0]])
        : places.length > 2 * MOST_TOLD
          ? `${capital(inWords(places.length))} ${kindsOf(puzzle, places)}`
          : `${capital(listed(places.map((p) => names[p])))}`
    const verb = places.length === 1 ? 'is' : 'are'
    const how = /^(twisted|flipped)/.test(turned) ? turned : `turned in place, ${turned}`
    const there = /^(twisted|flipped)/.test(turned) ? ' in place' : ''
    return `${count} ${verb} ${how}${there}${isSeen ? '' : ', which does not show'}.`
  })
}

function borrowedWords(puzzle: Puzzle, borrowed: readonly number[], moved: number): string[] {
  if (borrowed.length === 0) return []
  const still = puzzle.pieces.length - moved - borrowed.length
  const rest =
    still === 0 ? '' : ` ${capital(inWords(still))} ${still === 1 ? 'is' : 'are'} never touched.`
  return [
    `${capital(plural(borrowed.length, 'piece'))} ${borrowed.length === 1 ? 'is' : 'are'} only borrowed: moved on the way and back at the end.${rest}`,
  ]
}

function holdWords(puzzle: Puzzle, hold: Rotation): string[] {
  if (hold === 0) return []
  const pose = poseOf(puzzle.definition)
  const shown = (normal: Parameters<typeof posed>[1]) =>
    DIRECTIONS.find(({ vector }) => dot(vector, unit(posed(pose, normal))) > 1 - 1e-6)
  const moves = DIRECTIONS.flatMap(({ vector }) => {
    const [was, is] = [shown(vector), shown(rotate(hold, vector))]
    return was && is && was !== is ? [`what was ${was.at} is ${is.at}`] : []
  })
  return [
    moves.length === 0
      ? 'Afterwards the whole puzzle is held otherwise.'
      : `Afterwards the whole puzzle is held otherwise: ${listed(moves.slice(0, 2))}.`,
  ]
}

function orderWords(order: number, orders: Doing['orders']): string[] {
  if (order === 1) return []
  const sooner = orders.filter(({ order: own }) => own > 1 && own < order)
  const also = sooner.map(({ kind, order: own }) => `${kindPlural(kind)} after ${inWords(own)}`)
  return [
    `Done ${times(order)}, everything is back${also.length === 0 ? '' : `; ${listed(also)}`}.`,
  ]
}

/** '3 corners round, 2 edges exchanged, 2 turned' */
function summaryOf(puzzle: Puzzle, rounds: readonly number[][], spun: number): string {
  const parts = rounds
    .map((round) => ({ round, kind: kindsOf(puzzle, round) }))
    .map(({ round, kind }) =>
      round.length === 2 ? `2 ${kind} exchanged` : `${round.length} ${kind} round`,
    )
  const counted = [...new Set(parts)].map((part) => {
    const n = parts.filter((each) => each === part).length
    return n === 1 ? part : `${times(n)} ${part}`
  })
  if (spun > 0) counted.push(`${spun} turned in place`)
  return counted.length === 0 ? 'nothing' : counted.join(', ')
}
