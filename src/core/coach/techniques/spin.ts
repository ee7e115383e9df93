/** Spin: pieces that only turn in their places, each by one turn of a layer that carries it. */
import { sequence } from '../../notation/sequence'
import type { Technique } from '../../schools/school'
import { frameMeeting, isOnRayOf, piecesOf } from '../goal'
import { selected } from '../selections'
import { doing, NoWay, type StageContext, type Workpiece } from '../workpiece'

export function spinInPlace(
  { puzzle, stage, base, hand }: StageContext,
  work: Workpiece,
  { select, layers }: Extract<Technique, { kind: 'spin' }>,
): void {
  const turns = puzzle.turns
    .filter(({ grip }) => layers.includes(puzzle.grips[grip].name))
    .map((turn) => sequence(puzzle, turn.name))
  const pieces = selected(puzzle, select, base)
  // A piece is right if the goal holds of it and of those that must be together with it.
  const isRight = (piece: number, table?: Uint8Array) => {
    const { state } = work.held()
    const goal = stage.goal.map((condition) => ({
      ...condition,
      pieces: piecesOf(puzzle, condition, base).filter((other) => isOnRayOf(puzzle, other, piece)),
    }))
    return (
      frameMeeting(
        puzzle,
        goal.filter((each) => each.pieces.length > 0),
        base,
        state,
        table,
      ) !== undefined
    )
  }
  for (const piece of pieces) {
    if (isRight(piece)) continue
    const kept = pieces.filter((other) => isRight(other))
    const ways = turns
      .filter(({ table }) => isRight(piece, table) && kept.every((other) => isRight(other, table)))
      .sort((a, b) => a.costs[hand] - b.costs[hand])
    if (ways.length === 0) throw new NoWay('no turn sets the piece right in its place')
    work.step({ kind: 'spin', piece }, doing(ways[0].turns))
  }
}
