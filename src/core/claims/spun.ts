/** Pieces that are turned in their places: those that are turned alike are told together. */
import { isOnEdge, outwardOf, type PlaceAccount } from '../analysis/anatomy'
import { amountOf } from '../analysis/sense'
import type { Puzzle } from '../puzzle/compile'
import type { Claim } from './claim'

export function spinClaims(puzzle: Puzzle, spun: readonly PlaceAccount[]): Claim[] {
  const wayOf = ({ piece, sense, isSeen }: PlaceAccount) =>
    `${sense.degrees}|${sense.isClockwise}|${isSeen}|${isOnEdge(outwardOf(puzzle, piece))}`
  return [...new Set(spun.map(wayOf))].map((way): Claim => {
    const own = spun.filter((each) => wayOf(each) === way)
    const [{ sense, isSeen }] = own
    return {
      kind: 'spun',
      of: own.map(({ piece }) => puzzle.pieces[piece].id),
      ...amountOf(sense),
      ...(!isSeen && { isUnseen: true as const }),
    }
  })
}
