/** Blocks that grow in a cap, rounds of its pieces, commutators, circles. */
import { areNeighbours, growthsIn } from '../../analysis/caps'
import { isLocked } from '../../analysis/circles'
import { turnSide } from '../../analysis/sides'
import { average, dot } from '../../geometry/vector'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { directionOfName, DIRECTIONS, type Direction } from '../../puzzle/directions'
import { rotate } from '../../rotation'
import { turnFreely, type State } from '../../state'
import type { CapsKind } from '../claim'
import {
  indices,
  lyingIn,
  movedBetween,
  placeFilled,
  showsRight,
  type Evidence,
  type Moment,
} from '../evidence'
import type { Judges } from './judge'

export const OF_CAPS: Judges<CapsKind> = {
  rounds({ of, lengths, how }, { puzzle, at, held }) {
    const moment = at(held)
    const own = indices(puzzle, of)
    const wrong = own.filter((home) => !showsRight(puzzle, moment, home))
    // Where what lies in a place belongs.
    const next = new Map(wrong.map((home) => [home, lyingIn(puzzle, moment, home)]))
    if (wrong.some((home) => !wrong.includes(next.get(home) ?? -1))) return false
    const rounds = roundsIn(next)
    const [a, b] = wrong
    const apart = () =>
      puzzle.pieces[a].cells[0].filter((c, i) => c !== puzzle.pieces[b].cells[0][i]).length
    return (
      rounds
        .map(({ length }) => length)
        .sort()
        .join() === [...lengths].sort().join() &&
      (how === undefined || (wrong.length === 2 && apart() === (how === 'beside' ? 1 : 2)))
    )
  },
  asOneBlock({}, { puzzle, lines, at, held, turns }) {
    const pieces = indices(puzzle, lines)
    const isOne = ({ state }: Moment) => new Set(pieces.map((p) => state[p])).size === 1
    const areBeside =
      puzzle.definition.mechanism.kind !== 'capped' ||
      pieces.every((a) => pieces.some((b) => a !== b && areNeighbours(puzzle, a, b)))
    return pieces.length > 1 && areBeside && isOne(at(held)) && isOne(at(turns.length))
  },
  commutator({ first, second }, { puzzle, turns }) {
    const inverse = (name: string) => puzzle.turns[puzzle.turnByName.get(name)?.inverse ?? -1]?.name
    const all = [...first, second, ...[...first].reverse().map(inverse), inverse(second)].join(' ')
    return ` ${turns.map(({ name }) => name).join(' ')} `.includes(` ${all} `)
  },
  circle({ side, isLocked: said }, { puzzle, lines, end }) {
    const { vector } = directionOfName(side)
    // It is the one that is worked on.
    const areOfIt = indices(puzzle, lines).every((p) => {
      const home = placeFilled(puzzle, end, p)
      return (
        home !== undefined &&
        puzzle.pieces[home].faces.every(({ normal }) => dot(normal, vector) > 0)
      )
    })
    return (
      puzzle.definition.mechanism.kind === 'circles' &&
      areOfIt &&
      isLocked(puzzle, directionOfName(side)) === (said === true)
    )
  },
  grown({ side, count }, { puzzle, end }) {
    const growths = growthsIn(puzzle, directionOfName(side))
    const nth = growths[0]?.findIndex(({ length }) => length === count) ?? -1
    const has = (n: number) =>
      growths.some((growth) => growth[n]?.every((home) => showsRight(puzzle, end, home)))
    return nth >= 0 && has(nth) && !has(nth + 1)
  },
  gathers: ({ at: n }, evidence) =>
    readings(evidence).some(
      ({ coming }) =>
        !areOne(momentAt(evidence, n), coming) &&
        afterwards(evidence, n).every((moment) => areOne(moment, coming)),
    ),
  parks({ at: own, lift, from }, evidence) {
    const [turn, lifting] = [turnAt(evidence, own), turnAt(evidence, lift)]
    if (!turn || !lifting || own >= lift) return false
    const [before, then] = [momentAt(evidence, own), momentAt(evidence, lift)]
    return readings(evidence).some(({ block, coming, side }) => {
      const isOne = (moment: Moment) => areOne(moment, [...block, ...coming])
      const took = movedBy(evidence.puzzle, before, lifting, block)
      const turned = made(evidence.puzzle, before, turn)
      const takesCap = evidence.puzzle.pieces.every(
        (_, p) => !inCap(evidence.puzzle, before, side, p) || turned[p] !== before.state[p],
      )
      return (
        takesCap &&
        !isOne(then) &&
        afterwards(evidence, lift).every(isOne) &&
        movedBy(evidence.puzzle, then, lifting, block) === 0 &&
        (from === 'apart'
          ? took > 0 && took < block.length
          : from === 'along'
            ? took === block.length
            : took === 0)
      )
    })
  },
  lifts({ at: n, moves, coming: count, leaving, hasBlock }, evidence) {
    const turn = turnAt(evidence, n)
    if (!turn) return false
    const { puzzle } = evidence
    const [before, next] = [momentAt(evidence, n), momentAt(evidence, n + 1)]
    return readings(evidence).some(({ block, coming, side }) => {
      const isThere = (moment: Moment) =>
        areOne(moment, [...block, ...coming]) && coming.every((p) => inCap(puzzle, moment, side, p))
      const took = movedBy(puzzle, before, turn, block)
      const left = puzzle.pieces.filter(
        (_, p) => inCap(puzzle, before, side, p) && !inCap(puzzle, next, side, p),
      ).length
      return (
        coming.length === count &&
        !isThere(before) &&
        afterwards(evidence, n).every(isThere) &&
        (hasBlock === true) === block.length > 0 &&
        left === leaving &&
        (moves === 'nothing'
          ? took === 0
          : moves === 'some'
            ? took > 0 && took < block.length
            : took === block.length && took > 0)
      )
    })
  },
}

function roundsIn(next: ReadonlyMap<number, number>): number[][] {
  const rounds: number[][] = []
  const seen = new Set<number>()
  for (const first of next.keys()) {
    const round: number[] = []
    for (let at: number | undefined = first; at !== undefined && !seen.has(at); at = next.get(at)) {
      seen.add(at)
      round.push(at)
    }
    if (round.length > 0) rounds.push(round)
  }
  return rounds
}

/** The n-th turn of layers is told from the first of them. */
const momentAt = ({ at, held }: Evidence, n: number): Moment => at(held + n)

const turnAt = ({ puzzle, turns, held }: Evidence, n: number): Turn | undefined =>
  puzzle.turnByName.get(turns[held + n]?.name ?? '')

const afterwards = (evidence: Evidence, n: number): Moment[] =>
  evidence.turns.slice(evidence.held + n).map((_, i) => momentAt(evidence, n + i + 1))

const areOne = ({ state }: Moment, pieces: readonly number[]): boolean =>
  new Set(pieces.map((p) => state[p])).size <= 1

const made = (puzzle: Puzzle, { state }: Moment, turn: Turn): State =>
  turnFreely(puzzle, state, turn, new Uint8Array(state))

const movedBy = (puzzle: Puzzle, moment: Moment, turn: Turn, block: readonly number[]): number => {
  const next = made(puzzle, moment, turn)
  return block.filter((p) => next[p] !== moment.state[p]).length
}

function inCap(puzzle: Puzzle, moment: Moment, side: Direction, piece: number): boolean {
  const { vector } = turnSide(puzzle, moment.frame, side)
  return dot(rotate(moment.state[piece], average(puzzle.pieces[piece].cells)), vector) > 1.5
}

interface Reading {
  readonly side: Direction
  readonly block: readonly number[]
  readonly coming: readonly number[]
}

/** Which blocks grow by which pieces: of each cap those that have grown the furthest; which of several is open. */
function readings({ puzzle, at, held, turns }: Evidence): Reading[] {
  const [before, end] = [at(held), at(turns.length)]
  const isRight = (moment: Moment) => (home: number) => showsRight(puzzle, moment, home)
  const { mechanism } = puzzle.definition
  const caps = mechanism.kind === 'capped' ? mechanism.caps : []
  const moved = new Set(movedBetween(puzzle, before, end))
  return DIRECTIONS.filter(({ name }) => caps.includes(name)).flatMap((side) => {
    const grown = growthsIn(puzzle, side).map((growth) => {
      const open = growth.findIndex((homes) => !homes.every(isRight(end)))
      const homes = growth[open < 0 ? growth.length - 1 : open].filter(isRight(end))
      return { homes, rank: 10 * (open < 0 ? growth.length : open) + homes.length }
    })
    const most = Math.max(...grown.map(({ rank }) => rank))
    return grown.flatMap(({ homes, rank }) => {
      // What was home by chance and is given up belongs to no block.
      const block = homes.filter(isRight(before)).map((home) => lyingIn(puzzle, before, home))
      const coming = homes
        .filter((home) => !isRight(before)(home))
        .map((home) => lyingIn(puzzle, end, home))
      return rank === most && coming.length > 0 && coming.some((p) => moved.has(p))
        ? [{ side, block, coming }]
        : []
    })
  })
}
