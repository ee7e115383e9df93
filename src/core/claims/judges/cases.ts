/** Cases: how one layer shows itself, what a case is taken for, in which holds its sequence works. */
import { barsIn, looksIn, patternOf } from '../../analysis/caseRead'
import { sequenceOf, doSequence } from '../../notation/sequence'
import type { Puzzle } from '../../puzzle/compile'
import { directionOfName, turnDirection, type Direction } from '../../puzzle/directions'
import { multiply, rotationAbout } from '../../rotation'
import { inverseOf, isSolved, rotateState, start } from '../../state'
import type { CasesKind, Of } from '../claim'
import { indices, type Evidence, type Moment } from '../evidence'
import type { Judges } from './judge'

export const OF_CASES: Judges<CasesKind> = {
  caseIs: ({ nth, of }) => nth >= 1 && nth <= of,
  seekCase: ({ of }) => of.length > 0,
  caseLooks({ of, side, count, how }, { puzzle, now }) {
    const looks = looksOf(puzzle, now, side, of)
    const up = turnDirection(now.frame, directionOfName(side))
    return (
      looks.length === of.length &&
      looks.filter(({ toward }) => toward === up).length === count &&
      patternOf(puzzle, now, directionOfName(side), looks) === how
    )
  },
  looksToward: ({ side, places, toward }, { puzzle, now }) =>
    places.length === toward.length &&
    places.every((place, i) => looksOf(puzzle, now, side, [place])[0]?.toward.name === toward[i]),
  barCount: ({ side, count }, { puzzle, now }) =>
    barsIn(puzzle, now, directionOfName(side)).length === count,
  barsAt({ side, sides }, { puzzle, now }) {
    const found = barsIn(puzzle, now, directionOfName(side)).map(({ name }) => name)
    return found.length === sides.length && sides.every((each) => found.includes(each))
  },
  // What a word means.
  meansBar: () => true,
  worksHeld({ side, so, holds }, evidence) {
    const works = [90, 180, 270].filter((degrees) => isDone(evidence, { side, so }, degrees))
    return works.includes(180) && (works.length === 3) === (holds === 'any')
  },
  mistakenFor({ algorithm, of, side, count, place, here, there }, { puzzle, now }) {
    const own = looksOf(puzzle, now, side, of)
    const [decisive] = indices(puzzle, [place])
    const towardAt = (looks: typeof own) =>
      looks.find((each) => each.place === decisive)?.toward.name
    if (here === there || towardAt(own) !== here) return false
    const others = turnsRound(now, side).map((round) => {
      const other = looksOf(puzzle, caseMoment(puzzle, now, side, algorithm, round), side, of)
      const differing = own.filter(
        (look) => other.find((each) => each.place === look.place)?.toward !== look.toward,
      )
      return { count: differing.length, toward: towardAt(other) }
    })
    return (
      Math.min(...others.map((each) => each.count)) === count &&
      others.some((each) => each.count === count && each.toward === there)
    )
  },
}

const looksOf = (
  puzzle: Puzzle,
  moment: Moment,
  side: Direction['name'],
  of: readonly string[],
) => {
  const own = indices(puzzle, of)
  return looksIn(puzzle, moment, directionOfName(side)).filter(({ place }) => own.includes(place))
}

/** Rotations about the axis of a side as it is held. */
const turnsRound = ({ frame }: Moment, side: Direction['name']) =>
  [0, 90, 180, 270].map((degrees) =>
    rotationAbout(turnDirection(frame, directionOfName(side)).vector, degrees),
  )

/** Where a sequence leads to the finished puzzle from, held like a moment but for a rotation about the side's axis. */
function caseMoment(
  puzzle: Puzzle,
  { frame }: Moment,
  side: Direction['name'],
  algorithm: readonly string[],
  round: number,
): Moment {
  const turns = algorithm.flatMap((name) => puzzle.turnByName.get(name) ?? [])
  const finished = rotateState(start(puzzle), frame)
  const before = doSequence(sequenceOf(puzzle, inverseOf(puzzle, turns)), finished)
  return { state: rotateState(before, round), frame }
}

/** Whether the sequence, and a turn of the side's layer if need be, does its work from another hold. */
function isDone(
  { puzzle, turns, algorithm, at }: Evidence,
  { side: name, so }: Pick<Of<'worksHeld'>, 'side' | 'so'>,
  degrees: number,
): boolean {
  const side = directionOfName(name)
  const ready = at(turns.length - algorithm.length)
  const last = turnDirection(ready.frame, side)
  const round = rotationAbout(last.vector, degrees)
  const made = sequenceOf(
    puzzle,
    algorithm.flatMap((each) => puzzle.turnByName.get(each) ?? []),
  )
  const end: Moment = {
    state: doSequence(made, rotateState(ready.state, round)),
    frame: multiply(made.hold, multiply(round, ready.frame)),
  }
  const own = turnDirection(end.frame, side)
  const extra = puzzle.turns.filter(
    ({ grip, whole }) => !whole && puzzle.grips[grip].name === own.letter,
  )
  return [[], ...extra.map((turn) => [turn])].some((turn) => {
    const state = doSequence(sequenceOf(puzzle, turn), end.state)
    if (so === 'home') return isSolved(puzzle, state)
    return state.every((r) => turnDirection(r, side) === own)
  })
}
