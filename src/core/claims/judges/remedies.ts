/** What the smaller box alone cannot mend. */
import { joinedState } from '../../analysis/joined'
import { parityOf } from '../../analysis/invariants'
import { withinReach } from '../../analysis/placements'
import { baseKind } from '../../phrases'
import type { Puzzle } from '../../puzzle/compile'
import { INVERSE, multiply, rotate, type Vector } from '../../rotation'
import { rotateState, type State } from '../../state'
import { isReachedButForExchanges, isReachedInFrame } from '../../universal/account'
import { smallOf, type RemediesKind } from '../claim'
import { indices, type Evidence, type Moment } from '../evidence'
import type { Judges } from './judge'

/** The smaller box as it is held, in its frame. */
function readIn({ puzzle }: Evidence, as: Vector, { state, frame }: Moment) {
  const joined = smallOf(puzzle, as)
  const read = joinedState(puzzle, joined, state)
  return read && rotateState(read, INVERSE[frame])
}

const isOdd = (small: Puzzle, state: State, kind: string): boolean => {
  const own = small.pieces.flatMap((piece, p) => (baseKind(piece.kind) === kind ? [p] : []))
  return parityOf(own.map((p) => own.indexOf(small.place[24 * p + state[p]]))) === 1
}

export const OF_REMEDIES: Judges<RemediesKind> = {
  turnedOver({ as, of, count }, evidence) {
    const read = readIn(evidence, as, evidence.now)
    const far = evidence.base.vector.map((c) => -c) as unknown as Vector
    if (!read) return false
    const turned = indices(smallOf(evidence.puzzle, as).small, of).filter((p) =>
      rotate(read[p], far).some((c, i) => c !== far[i]),
    )
    return turned.length === count
  },
  exchangesOf({ as, corners, edges }, evidence) {
    const { small } = smallOf(evidence.puzzle, as)
    const read = readIn(evidence, as, evidence.now)
    return (
      read !== undefined &&
      isOdd(small, read, 'corner') === (corners === 'odd') &&
      isOdd(small, read, 'edge') === (edges === 'odd')
    )
  },
  remedied({ as, how, of, beside }, evidence) {
    const { puzzle, at, held, turns } = evidence
    const { small } = smallOf(puzzle, as)
    const [was, is] = [at(held), at(turns.length)].map((moment) => readIn(evidence, as, moment))
    if (!was || !is) return false
    const own = indices(small, of)
    const told = [...own, ...indices(small, beside)]
    const shown = small.pieces.flatMap((_, p) =>
      small.look[24 * p + was[p]] === small.look[24 * p + is[p]] ? [] : [p],
    )
    const isInPlace = (p: number) => small.place[24 * p + was[p]] === small.place[24 * p + is[p]]
    return (
      shown.every((p) => told.includes(p)) &&
      own.every((p) => multiply(INVERSE[was[p]], is[p]) !== 0) &&
      (how === 'turned' || own.every((p) => !isInPlace(p)))
    )
  },
  cannotFinish: ({ as }, evidence) => !finishes(evidence, as, evidence.now).now,
  canFinish({ as }, evidence) {
    const { now, isNearer } = finishes(evidence, as, evidence.end)
    return now || isNearer
  },
  countThrough: () => true,
  outerCannot: () => true,
  equalsHide: () => true,
}

function finishes(evidence: Evidence, as: Vector, moment: Moment) {
  const { small } = smallOf(evidence.puzzle, as)
  const read = readIn(evidence, as, moment)
  const held = read && withinReach(small, read)
  return {
    now: held !== undefined && isReachedInFrame(small, held),
    isNearer: held !== undefined && isReachedButForExchanges(small, held),
  }
}
