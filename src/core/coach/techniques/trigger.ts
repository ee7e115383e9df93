/** Trigger: bring a piece to a working spot and repeat a commutator until it sits right. */
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Trigger } from '../../schools/techniques'
import { memoised } from '../../memo'
import { join, repeated, sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import { placeOf, type State } from '../../state'
import { multiply } from '../../rotation'
import { pieceFor, piecesOfSide } from '../goal'
import {
  asConjugate,
  doing,
  held,
  holding,
  isOnSide,
  layerTurns,
  placeNamed,
  preparing,
  proceed,
  runsOf,
  spins,
  type StageContext,
  type Workpiece,
} from '../workpiece'

interface Way {
  readonly piece: number
  readonly spin: Sequence
  readonly fetch: Sequence
  readonly trigger: Sequence
  readonly runs: number
  readonly lastDropped: boolean
  readonly cost: number
}

/** A piece needs at most one removal and one insertion, so more steps than this are a defect. */
const STEP_LIMIT = 16
/** No trigger is repeated more often than this: a corner is right after five at the latest. */
const RUN_LIMIT = 6

export function triggerIn(
  context: StageContext,
  work: Workpiece,
  triggers: readonly Trigger[],
): void {
  const { puzzle, stage, prefer } = context
  const slots = piecesOfSide(puzzle, held(stage).base)
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    const pieces = slots.map((slot) => pieceFor(puzzle, slot, frame))
    const kept = pieces.filter((p) => state[p] === frame)
    const open = pieces.filter((p) => state[p] !== frame)
    if (open.length === 0) return
    const ways = open
      .flatMap((piece) => {
        const own = triggers.flatMap((trigger) => insertions(context, work, trigger, piece, kept))
        return own.length > 0 ? [cheapest(own)] : []
      })
      .sort((a, b) => a.cost - b.cost)
    if (ways.length === 0) {
      takeOut(context, work, triggers, open)
      continue
    }
    const chosen = (count === 0 && ways.find(({ piece }) => piece === prefer)) || ways[0]
    const { piece, runs, lastDropped } = chosen
    work.step(
      {
        kind: 'insert',
        piece,
        must: 'home',
        runs,
        trigger: chosen.trigger.turns.map(({ name }) => name),
        lastDropped,
        others: ways
          .filter((way) => way !== chosen)
          .map((way) => ({ piece: way.piece, turns: layerTurnsOf(way) })),
      },
      [
        ...holding(chosen.spin.turns),
        ...preparing(chosen.fetch.turns),
        ...(runs === 1 && lastDropped
          ? // What is left of a single run has the form S A S': its first turn is owed.
            asConjugate(puzzle, chosen.trigger.turns.slice(0, -1), 1)
          : runsOf(chosen.trigger.turns, runs).slice(0, lastDropped ? -1 : undefined)),
      ],
    )
  }
  throw new Error('the first layer does not come to an end')
}

const cheapest = <T extends { cost: number }>(ways: readonly T[]): T =>
  ways.reduce((best, way) => (way.cost < best.cost ? way : best))

const layerTurnsOf = ({ fetch, trigger, runs, lastDropped }: Way): number =>
  fetch.turns.length + trigger.turns.length * runs - (lastDropped ? 1 : 0)

/** A trigger without its last turn, which may concern the other layer only. */
const withoutLast = memoised((puzzle: Puzzle, text: string): Sequence =>
  sequenceOf(puzzle, sequence(puzzle, text).turns.slice(0, -1) as Turn[]),
)

/** The ways to bring one piece home: a hold, a turn of the other layer, some runs. */
function insertions(
  { puzzle, stage, hand }: StageContext,
  work: Workpiece,
  { turns, slot, spot }: Trigger,
  piece: number,
  kept: readonly number[],
): Way[] {
  const { base, last } = held(stage)
  const trigger = sequence(puzzle, turns)
  const short = withoutLast(puzzle, turns)
  const [working, waiting] = [placeNamed(puzzle, slot), placeNamed(puzzle, spot)]
  const { state, frame } = work.held()
  const fetches = layerTurns(puzzle, last.letter)
  const ways: Way[] = []
  for (const spin of spins(puzzle, base)) {
    const spunFrame = multiply(spin.hold, frame)
    if (puzzle.place[24 * piece + spunFrame] !== working) continue
    const inPlace = placeAfter(puzzle, spin, piece, state) === working
    for (const fetch of inPlace ? fetches.slice(0, 1) : fetches) {
      const ready = join(puzzle, spin, fetch)
      if (!inPlace && placeAfter(puzzle, ready, piece, state) !== waiting) continue
      const isRight = (what: Sequence) =>
        what.table[24 * piece + state[piece]] === spunFrame &&
        kept.every((p) => what.table[24 * p + state[p]] === spunFrame)
      for (let runs = 1; runs <= RUN_LIMIT; runs++) {
        const all = join(puzzle, ready, repeated(puzzle, trigger, runs))
        if (!isRight(all)) continue
        const dropped = join(puzzle, ready, repeated(puzzle, trigger, runs - 1), short)
        const lastDropped = isRight(dropped)
        const cost = (lastDropped ? dropped : all).costs[hand]
        ways.push({ piece, spin, fetch, trigger, runs, lastDropped, cost })
        break
      }
    }
  }
  return ways
}

const placeAfter = (puzzle: Puzzle, what: Sequence, piece: number, state: State): number =>
  puzzle.place[24 * piece + what.table[24 * piece + state[piece]]]

/** All open pieces sit in wrong slots of the layer: the trigger run once gets one out. */
function takeOut(
  { puzzle, stage, hand }: StageContext,
  work: Workpiece,
  triggers: readonly Trigger[],
  open: readonly number[],
): void {
  const { base, last } = held(stage)
  const ways = triggers.flatMap(({ turns, slot }) =>
    open.flatMap((piece) =>
      spins(puzzle, base).flatMap((spin) => {
        const spun = proceed(work.held(), spin)
        if (placeOf(puzzle, spun.state, piece) !== placeNamed(puzzle, slot)) return []
        const short = withoutLast(puzzle, turns)
        if (!isOnSide(puzzle, placeOf(puzzle, proceed(spun, short).state, piece), last)) return []
        return [{ piece, spin, short, turns, cost: join(puzzle, spin, short).costs[hand] }]
      }),
    ),
  )
  if (ways.length === 0) throw new Error('no trigger takes the piece out')
  const { piece, spin, short, turns } = cheapest(ways)
  work.step(
    { kind: 'takeOut', piece, trigger: sequence(puzzle, turns).turns.map(({ name }) => name) },
    [...holding(spin.turns), ...doing(short.turns, 1)],
  )
}
