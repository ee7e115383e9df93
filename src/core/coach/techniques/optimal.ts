/** Optimal: the least number of turns, and among those the easiest in the hand. */
import { frameOf, inFrame } from '../../analysis/frame'
import { countQuarters, rehold } from '../../notation/rewrite'
import { INVERSE, multiply } from '../../rotation'
import { handCost } from '../../search/handCost'
import { halfTurnTable, shortestSequences } from '../../search/distanceTable'
import { pieceFor, relativeTo } from '../goal'
import { doing, type StageContext, type Workpiece } from '../workpiece'

/** Shortest ways that are compared from each choice of the piece that stays still. */
const WAYS_LIMIT = 12

export function optimal({ puzzle, hand }: StageContext, work: Workpiece): void {
  const { state } = work.held()
  const table = halfTurnTable(puzzle)
  // Called after their homes in another frame, another piece stays still: R becomes L, and so on.
  const seen = new Set<number>()
  const ways = puzzle.holds.flatMap((frame) => {
    const stillPiece = pieceFor(puzzle, frameOf(puzzle).piece ?? 0, frame)
    if (seen.has(stillPiece)) return []
    seen.add(stillPiece)
    const relative = relativeTo(puzzle, state, frame)
    const still = inFrame(puzzle, relative)
    // The present hold is that of the frame taken along by this rotation.
    const back = multiply(relative[0], INVERSE[still[0]])
    return shortestSequences(puzzle, table, still, WAYS_LIMIT).map((turns) =>
      rehold(puzzle, turns, back),
    )
  })
  const turns = ways.reduce((a, b) => (handCost(b, hand) < handCost(a, hand) ? b : a))
  if (turns.length === 0) return
  work.step({ kind: 'optimal', quarters: countQuarters(turns) }, doing(turns))
}
