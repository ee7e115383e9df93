/** What a sequence does on a puzzle, as claims and as arrows from place to place. All of it is read off the engine. */
import { turnedInPlace } from '../analysis/anatomy'
import { cyclesOf, repeatsUntilBack, stateMade } from '../analysis/effect'
import type { Claim, Said } from '../claims/claim'
import { spinClaims } from '../claims/spun'
import { dot, unit } from '../geometry/vector'
import { handCost, type Hand } from '../notation/handCost'
import { countJoined, holdAfter } from '../notation/rewrite'
import { baseKind, kindPlural, listed, times } from '../phrases'
import type { Puzzle, Turn } from '../puzzle/compile'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import { posed, poseOf } from '../puzzle/view'
import { ok, type Result } from '../result'
import { IDENTITY, rotate, type Rotation, type Vector } from '../rotation'
import { start, turnFreely, type State } from '../state'

export interface Hop {
  /** Places, by the pieces whose homes they are. */
  readonly from: number
  readonly to: number
}

export interface Doing {
  /** The finished puzzle afterwards, whole-puzzle turns taken back. */
  readonly state: State
  readonly said: Said
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
    said: [
      ...roundClaims(puzzle, state, rounds),
      ...spinClaims(puzzle, spun),
      ...(moved.size === 0 ? [{ kind: 'nothingChanged' } as const] : []),
      ...borrowedClaims(puzzle, borrowed, moved.size),
      ...holdClaims(puzzle, holdAfter(turns)),
      ...orderClaims(order, orders),
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

const idsOf = ({ pieces }: Puzzle, all: readonly number[]): string[] => all.map((p) => pieces[p].id)

function roundClaims(puzzle: Puzzle, state: State, rounds: readonly number[][]): Claim[] {
  if (rounds.length <= MOST_TOLD && rounds.every((round) => round.length <= LONGEST_TOLD))
    return rounds.flatMap((round): Claim[] => [
      {
        kind: 'roundOf',
        of: idsOf(puzzle, round),
        ...(isUnseen(puzzle, state, round) && { isUnseen: true as const }),
      },
      ...round.flatMap((place) => arrivalOf(puzzle, place, state[place])),
    ])
  const kinds = [...new Set(rounds.map((round) => kindsOf(puzzle, round)))]
  return kinds.map((kind): Claim => {
    const own = rounds.filter((round) => kindsOf(puzzle, round) === kind)
    return {
      kind: 'roundsOf',
      of: idsOf(puzzle, own.flat()),
      lengths: own.map((round) => round.length).sort((a, b) => b - a),
    }
  })
}

/** The side of the six that a direction is drawn toward, if it is straight. */
const drawnToward = (puzzle: Puzzle, vector: Vector): Direction | undefined =>
  DIRECTIONS.find(
    (side) => dot(side.vector, unit(posed(poseOf(puzzle.definition), vector))) > 1 - 1e-6,
  )

/** Which way a side of it looks on arrival, where its sides look straight up, down, ahead or aside. */
function arrivalOf(puzzle: Puzzle, piece: number, rotation: Rotation): Claim[] {
  const { id, faces } = puzzle.pieces[piece]
  const sides = faces.flatMap(({ normal }) => {
    const was = drawnToward(puzzle, normal)
    const is = drawnToward(puzzle, rotate(rotation, normal))
    return was && is ? [{ was, is }] : []
  })
  if (faces.length < 2 || sides.length === 0) return []
  const [side] = [...sides].sort((a, b) => DIRECTIONS.indexOf(a.was) - DIRECTIONS.indexOf(b.was))
  return [{ kind: 'arrives', from: id, was: side.was.name, is: side.is.name }]
}

const borrowedClaims = (
  { pieces }: Puzzle,
  { length }: readonly number[],
  moved: number,
): Claim[] =>
  length === 0
    ? []
    : [{ kind: 'borrowedOnly', count: length, still: pieces.length - moved - length }]

function holdClaims(puzzle: Puzzle, hold: Rotation): Claim[] {
  if (hold === IDENTITY) return []
  const moves = DIRECTIONS.flatMap(({ vector }) => {
    const [was, is] = [drawnToward(puzzle, vector), drawnToward(puzzle, rotate(hold, vector))]
    return was && is && was !== is ? [{ was: was.name, is: is.name }] : []
  })
  return [{ kind: 'heldAfter', was: moves.map(({ was }) => was), is: moves.map(({ is }) => is) }]
}

function orderClaims(order: number, orders: Doing['orders']): Claim[] {
  if (order === 1) return []
  const sooner = orders.filter(({ order: own }) => own > 1 && own < order)
  return [
    {
      kind: 'backAfter',
      times: order,
      kinds: sooner.map(({ kind }) => kind),
      sooner: sooner.map((each) => each.order),
    },
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
