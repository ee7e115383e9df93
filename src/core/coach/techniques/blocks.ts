/**
 * Blocks: a cap grows from a corner with its edge to two by two, two by three, and the bar that is left. What is next
 * is lifted in for what lies there, the block turned out of the way meanwhile where that can be; of all ways that the
 * kit of commutators has, with a turn of the cap after them, the one is taken that adds the most for its turns.
 */
import { capMeant, growthsIn, type Growth } from '../../analysis/caps'
import { piecesBySlot } from '../../analysis/pairPlaces'
import { turnSide } from '../../analysis/sides'
import { dot } from '../../geometry/vector'
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Direction } from '../../puzzle/directions'
import type { Condition, Technique } from '../../schools/school'
import { isSolved, type State } from '../../state'
import { isFilled } from '../goal'
import { selected } from '../selections'
import type { Rotation } from '../../rotation'
import { asConjugate, preparing, type StageContext, type Workpiece } from '../workpiece'
import { bestWay, kitOfCommutators } from './commutator'
import { steadyTurns } from './commutatorKit'
import { doRest } from './universally'

/** A cap has nine pieces; more steps than this are a defect. */
const STEP_LIMIT = 20

/** Blocks of one size that are gone on from. */
const MOST_BLOCKS = 2

/** What it is worth, for each piece, to add only part of what is next, and to take the block apart meanwhile. */
const PART_WORTH = 0.4
const SPLIT_WORTH = 0.25

type Blocks = Extract<Technique, { kind: 'blocks' }>

export function doBlocks(
  context: StageContext,
  work: Workpiece,
  technique: Blocks,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base } = context
  const own = selected(puzzle, technique.select, base)
  const { cap } = technique.select
  const side = cap === undefined ? undefined : capMeant(puzzle, cap)
  // A file can ask for a cap that the puzzle does not have.
  if (!side) return
  const growths = growthsIn(puzzle, side)
  const macros = kitOfCommutators(context, technique, goalBefore)
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    if (isSolved(puzzle, state) || own.every((p) => isFilled(puzzle, state, p, frame))) return
    const ownTurns = turnsOfCap(puzzle, turnSide(puzzle, frame, side))
    const ways = blocksIn(puzzle, growths, state, frame).flatMap(
      (block) =>
        bestWay(context, work, nextTo(growths, block), goalBefore, macros, {
          keeps: block,
          closing: ownTurns,
          mostWorth: mostWorthOf(growths, block),
          worth: (states) => worthOf(puzzle, growths, block, states, frame),
        }) ?? [],
    )
    if (ways.length === 0) return doRest(context, work, 'noWayOn')
    const way = ways.reduce((best, each) => (each.value < best.value ? each : best))
    work.step({ kind: 'blocks', of: own, side: side.name }, [
      ...preparing(way.prefix),
      ...asConjugate(puzzle, way.turns),
    ])
  }
  throw new Error(`the stage ${stage.id} does not come to an end`)
}

/** How far a growth has come: all of the block that is whole, and what is home of the next. */
function reached(
  puzzle: Puzzle,
  growth: Growth,
  state: State,
  frame: Rotation,
): { readonly whole: number; readonly home: readonly number[] } {
  const isHome = (p: number) => isFilled(puzzle, state, p, frame)
  const whole = growth.findIndex((pieces) => !pieces.every(isHome))
  return whole < 0
    ? { whole: growth.length, home: growth[growth.length - 1] }
    : { whole, home: growth[whole].filter(isHome) }
}

/** The blocks that have grown the furthest; a piece alone counts where there is none. */
export function blocksIn(
  puzzle: Puzzle,
  growths: readonly Growth[],
  state: State,
  frame: Rotation,
): readonly (readonly number[])[] {
  const all = growths.map((growth) => reached(puzzle, growth, state, frame))
  const rank = ({ whole, home }: (typeof all)[number]) => 10 * whole + home.length
  const most = Math.max(...all.map(rank))
  const best = all.filter((each) => rank(each) === most).map(({ home }) => home)
  const distinct = new Map(best.map((home) => [[...home].sort((a, b) => a - b).join(), home]))
  return [...distinct.values()].slice(0, MOST_BLOCKS)
}

/** Turns of a cap alone, on a side as it is held. */
const turnsOfCap = (puzzle: Puzzle, { vector }: Direction): readonly Turn[] =>
  steadyTurns(puzzle).filter(({ grip }) => {
    const { axis, from, to } = puzzle.grips[grip]
    return to === null && (from ?? 0) > 1 && dot(axis, vector) === 1
  })

/** What a block can grow by next, each way by itself. */
const unitsNextTo = (growths: readonly Growth[], block: readonly number[]): number[][] =>
  growths.flatMap((growth) => {
    const grown = growth.find((pieces) => pieces.some((p) => !block.includes(p)))
    return grown && block.every((p) => grown.includes(p))
      ? [grown.filter((p) => !block.includes(p))]
      : []
  })

const nextTo = (growths: readonly Growth[], block: readonly number[]): number[] => [
  ...new Set(unitsNextTo(growths, block).flat()),
]

/** A part of what is next is worth less than its pieces. */
function mostWorthOf(growths: readonly Growth[], block: readonly number[]) {
  const least = Math.min(...unitsNextTo(growths, block).map(({ length }) => length))
  return (pieces: number): number => (pieces < least ? PART_WORTH * pieces : pieces)
}

/** What a row of turns adds to a block, in pieces. @param states before the first turn and after each */
function worthOf(
  puzzle: Puzzle,
  growths: readonly Growth[],
  block: readonly number[],
  states: readonly State[],
  frame: Rotation,
): number {
  const end = states[states.length - 1]
  const [from] = states
  let most = 0
  for (const growth of growths) {
    const before = reached(puzzle, growth, from, frame)
    if (before.home.length !== block.length || !block.every((p) => before.home.includes(p)))
      continue
    const after = reached(puzzle, growth, end, frame)
    const added = after.home.length - block.length
    const isWhole =
      after.whole > before.whole && growth[after.whole - 1].length === after.home.length
    most = Math.max(most, isWhole ? added : PART_WORTH * added)
  }
  return isWholeMeanwhile(puzzle, block, states, frame) ? most : SPLIT_WORTH * most
}

/** Whether what fills some homes stays together all the time. */
function isWholeMeanwhile(
  puzzle: Puzzle,
  block: readonly number[],
  states: readonly State[],
  frame: Rotation,
): boolean {
  const pieces = fillersOf(puzzle, block, states[0], frame)
  return states.every((state) => pieces.every((p) => state[p] === state[pieces[0]]))
}

/** What lies in some homes. */
export function fillersOf(
  puzzle: Puzzle,
  homes: readonly number[],
  state: State,
  frame: Rotation,
): number[] {
  const at = piecesBySlot(puzzle, state)
  return homes.map((home) => at[puzzle.slot[24 * home + frame]]).filter((p) => p >= 0)
}
