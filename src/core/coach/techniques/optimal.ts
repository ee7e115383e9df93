/** Optimal: the least number of turns, and among those the easiest in the hand. */
import { inFrame } from '../../analysis/frame'
import { countQuarters, rehold } from '../../notation/rewrite'
import { multiply } from '../../rotation'
import { handCost } from '../../search/handCost'
import { halfTurnTable, shortestSequences } from '../../search/distanceTable'
import { doing, type StageContext, type Workpiece } from '../workpiece'

export function optimal({ puzzle }: StageContext, work: Workpiece): void {
  const { state } = work.held()
  const held = inFrame(puzzle, state)
  // The frame hold is the present one taken along by this rotation.
  const back = puzzle.holds.find((r) => held.every((h, p) => multiply(r, h) === state[p])) as number
  const sequences = shortestSequences(halfTurnTable(puzzle), held)
  const written = sequences.map((turns) => rehold(puzzle, turns, back))
  const turns = written.reduce((a, b) => (handCost(b) < handCost(a) ? b : a))
  if (turns.length === 0) return
  work.step({ kind: 'optimal', quarters: countQuarters(turns) }, doing(turns))
}
