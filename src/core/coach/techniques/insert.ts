/**
 * Insert: pieces one by one, each from a hold about the base axis, after a turn of the last layer, by some
 * runs of a known sequence. What is done is kept. A piece that lies badly is lifted out first.
 */
import type { Puzzle } from '../../puzzle/compile'
import { multiply } from '../../rotation'
import type { Condition, Technique } from '../../schools/school'
import type { Sequence } from '../../notation/sequence'
import type { State } from '../../state'
import { frameMeeting } from '../goal'
import { selected } from '../selections'
import {
  doing,
  holding,
  NoWay,
  preparing,
  proceed,
  runsOf,
  type Position,
  type StageContext,
  type Workpiece,
} from '../workpiece'
import { waysOf, type Way } from './ways'

interface Bringing extends Way {
  readonly piece: number
}

/** A piece needs at most one lifting and one insertion, so more steps than this are a defect. */
const STEP_LIMIT = 24

export function insertPieces(
  context: StageContext,
  work: Workpiece,
  technique: Extract<Technique, { kind: 'insert' }>,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, base, prefer } = context
  const pieces = selected(puzzle, technique.select, base)
  const all = waysOf(context, technique.fetch, technique.sequences, technique.runs)
  for (let count = 0; count < STEP_LIMIT; count++) {
    const position = work.held()
    const open = pieces.filter((p) => position.state[p] !== position.frame)
    if (open.length === 0) return
    const ways = bringing(puzzle, all, position, pieces, goalBefore, base)
    if (ways.length > 0) {
      const chosen = (count === 0 && ways.find(({ piece }) => piece === prefer)) || ways[0]
      make(work, chosen, false, ways)
      continue
    }
    const lifts = open
      .flatMap((piece) => all.map((way) => ({ ...way, piece })))
      .filter(({ runs, whole, piece }) => runs === 1 && moves(position, whole, piece))
      .filter(({ whole, piece }) =>
        keeps(
          puzzle,
          position,
          whole,
          pieces.filter((p) => p !== piece),
          goalBefore,
          base,
        ),
      )
      .flatMap((lift) => {
        const after = proceed(position, lift.whole)
        const [next] = bringing(puzzle, all, after, pieces, goalBefore, base)
        return next ? [{ lift, cost: lift.cost + next.cost }] : []
      })
      .sort((a, b) => a.cost - b.cost)
    if (lifts.length === 0) throw new NoWay('no sequence lifts a piece out')
    make(work, lifts[0].lift, true, [])
  }
  throw new Error('the stage does not come to an end')
}

function make(work: Workpiece, way: Bringing, isLift: boolean, ways: readonly Bringing[]): void {
  work.step(
    {
      kind: 'bring',
      piece: way.piece,
      isLift,
      sequence: way.sequence.turns.map(({ name }) => name),
      runs: way.runs,
      others: ways
        .filter(
          ({ piece }, i) => piece !== way.piece && ways.findIndex((w) => w.piece === piece) === i,
        )
        .map(({ piece, whole }) => ({
          piece,
          turns: whole.turns.filter((turn) => !turn.whole).length,
        })),
    },
    [
      ...holding(way.spin.turns),
      ...preparing(way.fetch.turns),
      ...(way.runs === 1 ? doing(way.sequence.turns) : runsOf(way.sequence.turns, way.runs)),
    ],
  )
}

const moves = ({ state, frame }: Position, { table, hold }: Sequence, piece: number): boolean =>
  table[24 * piece + state[piece]] !== multiply(hold, state[piece]) &&
  table[24 * piece + state[piece]] !== multiply(hold, frame)

/** Whether what is done stays: the goal before, and the pieces of the stage that are home. */
function keeps(
  puzzle: Puzzle,
  { state, frame }: Position,
  { table, hold }: Sequence,
  pieces: readonly number[],
  goalBefore: readonly Condition[],
  base: StageContext['base'],
): boolean {
  const after = multiply(hold, frame)
  return (
    pieces.every((p) => state[p] !== frame || table[24 * p + state[p]] === after) &&
    (goalBefore.length === 0 || frameMeeting(puzzle, goalBefore, base, state, table) !== undefined)
  )
}

/** The ways that bring some open piece home, the easiest first. */
function bringing(
  puzzle: Puzzle,
  all: readonly Way[],
  position: Position,
  pieces: readonly number[],
  goalBefore: readonly Condition[],
  base: StageContext['base'],
): Bringing[] {
  const { state, frame } = position
  const open = pieces.filter((p) => state[p] !== frame)
  return all.flatMap((way) => {
    const after = multiply(way.whole.hold, frame)
    const piece = open.find((p) => isHomeAfter(state, way.whole, p, after))
    if (piece === undefined || !keeps(puzzle, position, way.whole, pieces, goalBefore, base))
      return []
    return [{ ...way, piece }]
  })
}

const isHomeAfter = (state: State, { table }: Sequence, p: number, frame: number): boolean =>
  table[24 * p + state[p]] === frame
