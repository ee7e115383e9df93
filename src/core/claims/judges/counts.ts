/** How many are right, what else moves, what deceives the eye. */
import { lookAlikesOf, lookClassesOf } from '../../analysis/lookAlikes'
import { circlesInOrder } from '../../analysis/circles'
import { isInCap } from '../../analysis/caps'
import { parityOf } from '../../analysis/invariants'
import { sideOpposite, turnSide } from '../../analysis/sides'
import { baseKind } from '../../phrases'
import type { Puzzle } from '../../puzzle/compile'
import { directionOfName, directionOfVector, type Direction } from '../../puzzle/directions'
import { INVERSE, multiply, rotate } from '../../rotation'
import { isSolved, looksHome, turnFreely } from '../../state'
import { indexOf, type CountsKind, type Of, type PieceId } from '../claim'
import {
  indices,
  isHome,
  lyingIn,
  movedBetween,
  placeFilled,
  showsRight,
  type Evidence,
  type Moment,
} from '../evidence'
import type { Judges } from './judge'

export const OF_COUNTS: Judges<CountsKind> = {
  homeCount(claim, evidence) {
    const { puzzle, end, now } = evidence
    const moment = claim.isOwed ? end : now
    const right = claim.of.filter((id) => isSo(claim, puzzle, moment, indexOf(puzzle, id)))
    return (
      right.length === claim.count &&
      (!claim.isOwed || evidence.isOwing) &&
      (claim.right === undefined || claim.right.join() === right.join()) &&
      isOwners(claim, puzzle)
    )
  },
  meansFitting: () => true,
  movedBeside({ kinds, count }, { puzzle, start, end, lines }) {
    const moved = movedBetween(puzzle, start, end).filter(
      (p) => !lines.includes(puzzle.pieces[p].id),
    )
    const kindOf = (p: number) => baseKind(puzzle.pieces[p].kind)
    if (count !== undefined)
      return moved.filter((p) => kinds.includes(kindOf(p))).length === count && count > 0
    return [...new Set(moved.map(kindOf))].sort().join() === [...kinds].sort().join()
  },
  givenUp: ({ places }, { puzzle, start, end }) =>
    places.length > 0 &&
    indices(puzzle, places).every(
      (p) => showsRight(puzzle, start, p) && !showsRight(puzzle, end, p),
    ),
  noneGained: ({ of }, evidence) => gainOf(of, evidence) <= 0,
  noneLost: ({ of }, { puzzle, at, held, end }) =>
    indices(puzzle, of).every(
      (p) => !showsRight(puzzle, at(held), p) || showsRight(puzzle, end, p),
    ),
  comeHome: ({ of, count }, evidence) => comeHome(of, evidence) === count,
  othersComeHome: ({ of, count }, evidence) =>
    count > 0 && comeHome(of, evidence) - evidence.lines.length === count,
  deceives({ piece, how, seems }, { puzzle, now, base }) {
    const p = indexOf(puzzle, piece)
    const looksRight =
      seems === 'home'
        ? isHome(puzzle, now, p)
        : isFitting(puzzle, now, p, sideOpposite(puzzle, base))
    return looksRight && (how === 'twin' || lookAlikesOf(puzzle).unseen[p].length > 1)
  },
  lookAlike: ({ piece, count }, { puzzle }) => alikeOf(puzzle, indexOf(puzzle, piece)) === count,
  seek: ({ piece }, { glowing }) => glowing.includes(piece),
  seekAmong: ({ of }) => of.length > 0,
  exchanges({ of, isOdd }, { puzzle, readAt, made }) {
    const { state, frame } = readAt(made)
    const own = indices(puzzle, of)
    const to = own.map((p) =>
      own.indexOf(puzzle.place[24 * p + multiply(INVERSE[frame], state[p])]),
    )
    return (parityOf(to) === 1) === (isOdd === true)
  },
  mustComeOut({ piece }, { puzzle, start, end }) {
    const p = indexOf(puzzle, piece)
    const place = placeFilled(puzzle, end, p)
    return place === undefined || place !== placeFilled(puzzle, start, p)
  },
  // Equal pieces may make another hold the finished one.
  allHomeAtOnce: ({ of }, { puzzle, end }) =>
    of.length > 0 &&
    (isSolved(puzzle, end.state) || indices(puzzle, of).every((p) => showsRight(puzzle, end, p))),
  oneQuarter: ({}, { puzzle, turns }) =>
    turns.filter(({ name }) => puzzle.turnByName.get(name)?.whole === false).length === 1,
  turnMissing: ({}, { puzzle, turns }) =>
    new Set(
      turns.flatMap(({ name }) => {
        const turn = puzzle.turnByName.get(name)
        return turn && !turn.whole ? [turn.grip] : []
      }),
    ).size <= 1,
  offered: ({ turns }) => turns > 0,
  offeredThird: ({ piece, place, arrive }, { puzzle, now }) =>
    arrive > 0 &&
    arrive <= 3 &&
    placeFilled(puzzle, now, indexOf(puzzle, piece)) === indexOf(puzzle, place),
}

const alikeOf = (puzzle: Puzzle, piece: number): number => {
  const { classOf } = lookClassesOf(puzzle)
  return classOf.filter((each) => each === classOf[piece]).length
}

/** How many places show what they should that did not before. */
const comeHome = (of: readonly PieceId[], { puzzle, at, held, end }: Evidence): number =>
  indices(puzzle, of).filter((p) => !showsRight(puzzle, at(held), p) && showsRight(puzzle, end, p))
    .length

const gainOf = (of: readonly PieceId[], { puzzle, at, held, end }: Evidence): number => {
  const own = indices(puzzle, of)
  const right = (moment: Moment) => own.filter((p) => showsRight(puzzle, moment, p)).length
  return right(end) - right(at(held))
}

type HomeCount = Of<'homeCount'>

function isSo({ how, side }: HomeCount, puzzle: Puzzle, moment: Moment, place: number): boolean {
  switch (how) {
    case 'home':
      return showsRight(puzzle, moment, place)
    case 'placed': {
      const { classOf } = lookClassesOf(puzzle)
      return moment.state.some(
        (_, p) => classOf[p] === classOf[place] && placeFilled(puzzle, moment, p) === place,
      )
    }
    case 'faced':
    case 'fitting': {
      const there = lyingIn(puzzle, moment, place)
      if (there < 0 || side === undefined) return false
      const judge = how === 'faced' ? isFaced : isFitting
      return judge(puzzle, moment, there, directionOfName(side))
    }
  }
}

/** Whether what a piece shows of a side's colour looks where that side is. */
export function isFaced(
  puzzle: Puzzle,
  { state, frame }: Moment,
  piece: number,
  side: Direction,
): boolean {
  const at = turnSide(puzzle, frame, side)
  const colour = puzzle.definition.faces[side.name]
  return puzzle.pieces[piece].faces.some(
    (face) => face.colour === colour && directionOfVector(rotate(state[piece], face.normal)) === at,
  )
}

/** Whether it looks home, if need be after a turn of the layer of a side. */
export function isFitting(
  puzzle: Puzzle,
  moment: Moment,
  piece: number,
  side?: Direction,
): boolean {
  if (isHome(puzzle, moment, piece)) return true
  const { state, frame } = moment
  const letter = side && turnSide(puzzle, frame, side).letter
  return puzzle.turns.some(
    (turn) =>
      !turn.whole &&
      puzzle.grips[turn.grip].name === letter &&
      looksHome(
        puzzle,
        piece,
        multiply(INVERSE[frame], turnFreely(puzzle, state, turn, new Uint8Array(state))[piece]),
      ),
  )
}

/** Whether they are of the circle or the cap of that side. */
function isOwners({ of, side, whose }: HomeCount, puzzle: Puzzle): boolean {
  if (whose === undefined) return true
  const owner = side && directionOfName(side)
  return (
    owner !== undefined &&
    indices(puzzle, of).every((p) =>
      whose === 'cap'
        ? isInCap(puzzle, p, owner)
        : circlesInOrder(puzzle).includes(owner) &&
          puzzle.pieces[p].faces.some(({ normal }) => directionOfVector(normal) === owner),
    )
  )
}
