/** Gather: bring pieces of the base layer home one by one, by the shortest turns. */
import type { Puzzle, Turn } from '../../puzzle/compile'
import { memoised } from '../../memo'
import { directionOfLetter, type Direction } from '../../puzzle/directions'
import { ROTATION_COUNT } from '../../rotation'
import { doSequence, sequenceOf, type Sequence } from '../../notation/sequence'
import { buildGoalTable, goalDistance, type GoalTable } from '../../search/goalTable'
import { handCost, type Hand } from '../../notation/handCost'
import { turnFreely, type State } from '../../state'
import type { Selection } from '../../schools/school'
import { selected } from '../selections'
import { isFaced, pieceFor, piecesOfSide, relativeTo } from '../goal'
import { asConjugate, held, type StageContext, type Workpiece } from '../workpiece'

export function gather(
  context: StageContext,
  work: Workpiece,
  must: 'home' | 'faced',
  select?: Selection,
): void {
  const { puzzle, stage, prefer, hand } = context
  const side = held(stage).base
  const slots = select ? selected(puzzle, select, side) : piecesOfSide(puzzle, side)
  for (let first = true; ; first = false) {
    const { state, frame } = work.held()
    const relative = relativeTo(puzzle, state, frame)
    const done = slots.filter((q) => isDone(relative, q, must, side))
    const open = slots.filter((q) => !done.includes(q))
    if (open.length === 0) return
    const ways = open
      .map((slot) => {
        const way = wayTo(puzzle, [...done, slot], must, side, relative, hand)
        const rest = restAfter(doSequence(way, relative), way)
        return { piece: pieceFor(puzzle, slot, frame), way, cost: rest }
      })
      .sort((a, b) => a.cost - b.cost)
    const chosen = (first && ways.find(({ piece }) => piece === prefer)) || ways[0]
    work.step(
      {
        kind: 'insert',
        piece: chosen.piece,
        must,
        runs: 0,
        trigger: [],
        lastDropped: false,
        others: ways
          .filter((way) => way !== chosen)
          .map(({ piece, way }) => ({ piece, turns: way.turns.length })),
      },
      asConjugate(puzzle, chosen.way.turns),
    )
  }

  /**
   * Cost of the cheapest order for what is left, counted with the turns before; turns that meet and
   * cancel are not paid for, so an order that takes its own turns back is seen to be wasteful.
   */
  function restAfter(relative: State, before: Sequence): number {
    const done = slots.filter((q) => isDone(relative, q, must, side))
    if (done.length === slots.length) return before.costs[hand]
    return slots
      .filter((q) => !done.includes(q))
      .reduce((least, slot) => {
        const way = wayTo(puzzle, [...done, slot], must, side, relative, hand)
        const meets = before.turns.at(-1)?.grip === way.turns[0]?.grip ? WASTE : 0
        const cost = before.costs[hand] + meets + restAfter(doSequence(way, relative), way)
        return Math.min(least, cost)
      }, Infinity)
  }
}

/** What two steps that turn one layer in a row cost extra: the first should have gone further. */
const WASTE = 2

const isDone = (relative: State, slot: number, must: 'home' | 'faced', side: Direction): boolean =>
  must === 'home' ? relative[slot] === 0 : isFaced(relative[slot], side)

/** A table with the ways that were asked for so far, by the placement of the tracked pieces. */
interface Ways {
  readonly table: GoalTable
  readonly hand: Hand
  readonly known: Map<number, Sequence>
}

const waysFor = memoised((puzzle: Puzzle, key: string): Ways => {
  const [must, letter, slots, hand] = key.split(' ')
  const side = directionOfLetter(letter)
  const turns = puzzle.turns.filter(({ grip }) => /^[UDFBRL]$/.test(puzzle.grips[grip].name))
  const table = buildGoalTable(puzzle, slots.split(',').map(Number), turns, (rotations) =>
    rotations.every((r) => (must === 'home' ? r === 0 : isFaced(r, side))),
  )
  return { table, hand: hand as Hand, known: new Map() }
})

/** Of all shortest ways that bring the slots right, the one that lies easiest in the hand. */
function wayTo(
  puzzle: Puzzle,
  slots: readonly number[],
  must: 'home' | 'faced',
  side: Direction,
  from: State,
  hand: Hand,
): Sequence {
  const sorted = [...slots].sort((a, b) => a - b)
  const { table, known } = waysFor(puzzle, `${must} ${side.letter} ${sorted.join()} ${hand}`)
  const placement = sorted.reduce((sum, slot) => sum * ROTATION_COUNT + from[slot], 0)
  let way = known.get(placement)
  if (!way) {
    way = sequenceOf(puzzle, easiestShortest(puzzle, table, from, hand))
    known.set(placement, way)
  }
  return way
}

/** Most shortest ways that are compared. */
const WAYS_LIMIT = 60

function easiestShortest(puzzle: Puzzle, table: GoalTable, from: State, hand: Hand): Turn[] {
  let best: Turn[] = []
  let bestCost = Infinity
  let count = 0
  const path: Turn[] = []
  const visit = (state: State) => {
    const distance = goalDistance(table, state)
    if (distance === 0) {
      count++
      const cost = handCost(path, hand)
      if (cost < bestCost) {
        bestCost = cost
        best = [...path]
      }
      return
    }
    for (const turn of table.turns) {
      if (count >= WAYS_LIMIT) return
      const next = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      if (goalDistance(table, next) !== distance - 1) continue
      path.push(turn)
      visit(next)
      path.pop()
    }
  }
  visit(from)
  return best
}
