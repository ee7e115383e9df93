/** Count: turn the last layer, count the pieces that are placed, decide by the count. */
import { rehold } from '../../notation/rewrite'
import { repeated, join, sequence, type Sequence } from '../../notation/sequence'
import { placeOf } from '../../state'
import { piecesOfSide, sideOf } from '../goal'
import {
  doing,
  held,
  holding,
  layerTurns,
  placeNamed,
  preparing,
  proceed,
  runsOf,
  spins,
  type Position,
  type StageContext,
  type Workpiece,
} from '../workpiece'

/** One pass may be needed to reach a countable position, one to finish; more is a defect. */
const PASS_LIMIT = 4

interface Way {
  readonly piece: number
  readonly runs: number
  readonly turn: Sequence
  readonly spin: Sequence
  readonly cost: number
}

export function countAndCycle(
  context: StageContext,
  work: Workpiece,
  heldPlace: string,
  cycleText: string,
): void {
  const { puzzle, stage, hand } = context
  const { last } = held(stage)
  const cycle = sequence(puzzle, cycleText)
  const pieces = piecesOfSide(puzzle, sideOf('last', context.base))
  const lastTurns = layerTurns(puzzle, last.letter)
  const placed = ({ state, frame }: Position) =>
    pieces.filter((p) => placeOf(puzzle, state, p) === puzzle.place[24 * p + frame])

  for (let pass = 0; pass < PASS_LIMIT; pass++) {
    const positions = lastTurns.map((turn) => proceed(work.held(), turn))
    const counts = positions.map((position) => placed(position).length)
    const full = counts.indexOf(pieces.length)
    const counted = { kind: 'count', counts, cycle: cycle.turns.map(({ name }) => name) } as const
    if (full === 0) return
    if (full > 0) {
      work.step({ ...counted, action: 'align', runs: 0 }, doing(lastTurns[full].turns))
      return
    }
    const ways = positions.flatMap((position, j) =>
      placed(position).flatMap((piece) => waysHolding(position, lastTurns[j], piece)),
    )
    if (ways.length > 0) {
      const { runs, piece, turn, spin } = ways.reduce((a, b) =>
        b.runs < a.runs || (b.runs === a.runs && b.cost < a.cost) ? b : a,
      )
      const planned = [
        ...holding(spin.turns),
        ...preparing(rehold(puzzle, turn.turns, spin.hold)),
        ...runsOf(cycle.turns, runs),
      ]
      work.step({ ...counted, action: 'cycle', runs, piece }, planned)
      return
    }
    work.step({ ...counted, action: 'cycleAnyway', runs: 1 }, runsOf(cycle.turns, 1))
  }
  throw new Error('counting does not come to an end')

  /** Hold one placed piece still and cycle the other three, once or twice. */
  function waysHolding(position: Position, turn: Sequence, piece: number): Way[] {
    const still = placeNamed(puzzle, heldPlace)
    return spins(puzzle, held(stage).base).flatMap((spin) => {
      const spun = proceed(position, spin)
      if (placeOf(puzzle, spun.state, piece) !== still) return []
      return [1, 2].flatMap((runs) => {
        const cycles = repeated(puzzle, cycle, runs)
        if (placed(proceed(spun, cycles)).length < pieces.length) return []
        return [{ piece, runs, turn, spin, cost: join(puzzle, turn, spin, cycles).costs[hand] }]
      })
    })
  }
}

/**
 * Whether an algorithm moves three places of the last layer round, leaves the held one and brings
 * the base layer home: the demand on every cycle, typed in or found.
 */
export function isLayerCycle(
  { puzzle, stage }: Pick<StageContext, 'puzzle' | 'stage'>,
  { state, frame }: Position,
  heldPlace: string,
): boolean {
  const { base, last } = held(stage)
  if (piecesOfSide(puzzle, base).some((p) => state[p] !== frame)) return false
  const homeOf = (p: number) => puzzle.place[24 * p + frame]
  const moved = piecesOfSide(puzzle, last).filter((p) => placeOf(puzzle, state, p) !== homeOf(p))
  const heldPiece = placeNamed(puzzle, heldPlace)
  return moved.length === 3 && placeOf(puzzle, state, heldPiece) === homeOf(heldPiece)
}
