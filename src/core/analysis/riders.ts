/**
 * Pieces that move as one: whatever is turned, the same layers take both along. Such a piece rides on
 * another and needs no attention of its own; where its leader is, it is. (The bits of locked circles ride
 * on the corners and edges beside them.)
 */
import type { Puzzle } from '../puzzle/compile'
import { frameOf } from './frame'
import { lookAlikesOf, lookClassesOf } from './lookAlikes'
import { canBlock, reachOf } from './placements'

const known = new WeakMap<Puzzle, readonly number[]>()

/** For each piece the one that it rides on: itself, if it leads or moves alone. */
export function leadersOf(puzzle: Puzzle): readonly number[] {
  const found = known.get(puzzle)
  if (found) return found
  const leaders = canBlock(puzzle) ? puzzle.pieces.map((_, p) => p) : findLeaders(puzzle)
  known.set(puzzle, leaders)
  return leaders
}

function findLeaders(puzzle: Puzzle): number[] {
  const reach = reachOf(puzzle)
  const grips = [...new Set(frameOf(puzzle).turns.map(({ grip }) => grip))]
  const groups = new Map<string, number[]>()
  puzzle.pieces.forEach((_, p) => {
    const rotations = [...reach[p]].sort((a, b) => a - b)
    const moves = grips.map((grip) => rotations.map((r) => puzzle.carry[grip][24 * p + r]).join(''))
    const key = `${rotations.join()}|${moves.join()}`
    groups.set(key, [...(groups.get(key) ?? []), p])
  })
  // Only a piece that can be told from all others leads; one of the smaller orbit, so that all of the
  // larger ride.
  const { classSize } = lookClassesOf(puzzle)
  const { unseen } = lookAlikesOf(puzzle)
  const canLead = (p: number) => classSize[p] === 1 && unseen[p].length === 1
  const orbitSize = (p: number) => new Set(reach[p].map((r) => puzzle.slot[24 * p + r])).size
  const leaders = puzzle.pieces.map((_, p) => p)
  for (const group of groups.values()) {
    const [leader] = group.filter(canLead).sort((a, b) => orbitSize(a) - orbitSize(b))
    if (leader === undefined) continue
    for (const p of group) leaders[p] = leader
  }
  return leaders
}
