/**
 * Join: parts of the pieces of a smaller box are brought together. A step turns outer layers, which part nothing,
 * then does one of the stage's sequences; of all it takes the one that brings the most together for its turns. What
 * came before is together again at the end of every step.
 */
import { layersOf } from '../../analysis/layers'
import { simplify } from '../../notation/rewrite'
import { handCost } from '../../notation/handCost'
import { doSequence, type Sequence } from '../../notation/sequence'
import type { Puzzle, Turn } from '../../puzzle/compile'
import type { Vector } from '../../rotation'
import type { Condition } from '../../schools/school'
import { isSolved, turnFreely, type State } from '../../state'
import {
  asConjugate,
  preparing,
  type PlannedTurn,
  type StageContext,
  type Workpiece,
} from '../workpiece'
import { judgeFor, wholesOf } from './joinJudge'
import {
  goesBy,
  isFresh,
  macrosOf,
  prefixesFor,
  setUpMacros,
  writtenCycle,
  type Macro,
} from './joinMacros'
import { rivalsOf, wayTakingApart } from './joinRivals'
import {
  areAllPairs,
  lengthOf,
  type JoinSearch,
  type JoinTechnique,
  type JoinWay,
} from './joinSearch'
import { wayByStrips } from './joinStrips'
import { doRest } from './universally'

/** Turns of outer layers before a sequence. */
const PREFIX_TURNS = 2

/** More parts than this are hardly ever brought together by one step. */
const MOST_GAIN = 2

/** A stage brings together a few parts a step; more steps than this are a defect. */
const STEP_LIMIT = 60

export function joinParts(
  context: StageContext,
  work: Workpiece,
  technique: JoinTechnique,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base, hand } = context
  const { joined, wholes } = wholesOf(puzzle, technique.select, base)
  if (isSolved(puzzle, work.held().state)) return
  for (let count = 0; count < STEP_LIMIT; count++) {
    const { state, frame } = work.held()
    const judge = judgeFor(puzzle, base, frame, wholes, stage.goal, goalBefore)
    const before = judge.partsTogether(state)
    if (wholes.every((whole, i) => before[i] === joined.partsOf[whole].length)) return
    const search = { puzzle, technique, judge, hand, joined, wholes }
    const chosen =
      (count === 0 && work.steps.length === 0 && wayAsWished(search, context, state)) ||
      bestWay(search, state)
    // Equal parts can hide an exchange that no sequence of the stage mends.
    if (!chosen) return doRest(context, work, 'noWayOn')
    const done = asConjugate(puzzle, chosen.turns)
    work.step(
      {
        kind: 'join',
        size: technique.select.as as Vector,
        of: wholes,
        before,
        after: judge.partsTogether(chosen.end),
        ...openBetween(puzzle, done),
        ...(chosen.isByStrips ? { isByStrips: true } : {}),
        rivals: rivalsOf(search, state, chosen),
      },
      [...preparing(chosen.prefix), ...done],
    )
  }
  throw new Error(`the stage ${stage.id} does not come to an end`)
}

/** A slice that is set up and undone stands open meanwhile. */
function openBetween(puzzle: Puzzle, turns: readonly PlannedTurn[]) {
  const opening = turns.find(({ turn, role }) => role === 'setup' && isInner(puzzle, turn))
  const closing = turns.findLast(({ turn, role }) => role === 'undo' && isInner(puzzle, turn))
  return opening && closing ? { open: { from: opening.turn.name, to: closing.turn.name } } : {}
}

const isInner = (puzzle: Puzzle, { grip }: Turn): boolean =>
  !/^[UDFBRL]/.test(puzzle.grips[grip].name)

/** As the solver asks: another place is taken apart for the same pair. */
function wayAsWished(
  search: JoinSearch,
  { prefer, first }: StageContext,
  state: State,
): JoinWay | undefined {
  return prefer === undefined || first === undefined
    ? undefined
    : wayTakingApart(search, state, first, prefer)
}

/**
 * Turns of outer layers and a sequence; else the sequence set up by a turn of an inner layer; else two of these, one
 * after the other.
 */
function bestWay(search: JoinSearch, state: State): JoinWay | undefined {
  const { puzzle, technique, judge } = search
  const own = macrosOf(puzzle, technique.sequences.join('|'))
  const size = (technique.select.as as Vector).join()
  const prefixes = (most: number) => prefixesFor(puzzle, `${size} ${most} ${judge.pieces.join()}`)
  return (
    lastTwo(search, state, prefixes(1)) ??
    bestAfter(search, state, prefixes(PREFIX_TURNS), own) ??
    bestAfter(search, state, prefixes(1), setUpMacros(puzzle, technique.sequences.join('|'))) ??
    bestAfter(search, state, prefixes(PREFIX_TURNS + 1), own) ??
    bestOfTwo(search, state) ??
    searched(search, state)
  )
}

/** Nothing else can be taken apart for the last two. */
function lastTwo(
  search: JoinSearch,
  state: State,
  single: readonly Sequence[],
): JoinWay | undefined {
  const { puzzle, technique, judge } = search
  if (judge.begin(state) !== judge.partsInAll - 2 || !areAllPairs(search)) return undefined
  const own = macrosOf(puzzle, technique.sequences.join('|'))
  const slices = [...new Set(own.map(({ turns }) => turns[0]))].filter(
    (turn) => turn.inverse === turn.index && isInner(puzzle, turn),
  )
  const turns = single.flatMap((each) => [...each.turns])
  return wayByStrips({ ...search, slices, single: turns }, state)
}

/** What brings the most together for its turns; of equal ones the easiest in the hand. */
function bestAfter(
  { judge, hand }: JoinSearch,
  state: State,
  prefixes: readonly Sequence[],
  macros: readonly Macro[],
): JoinWay | undefined {
  const now = judge.begin(state)
  const gains = Math.min(judge.partsInAll - now, MOST_GAIN)
  let best: JoinWay | undefined
  let [bestValue, bestCost] = [Infinity, Infinity]
  for (const prefix of prefixes) {
    const from = doSequence(prefix, state)
    judge.begin(from)
    for (const macro of macros) {
      const length = prefix.turns.length + macro.turns.length
      if (length > bestValue * gains) break
      const most = judge.mostBy(macro)
      if (most === 0 || length > bestValue * most) continue
      const gain = judge.after(macro) - now
      if (gain <= 0) continue
      const value = length / gain
      if (value > bestValue) continue
      const cost = handCost([...prefix.turns, ...macro.turns], hand)
      if (value === bestValue && cost >= bestCost) continue
      const end = doSequence(macro, from)
      if (!judge.keeps(end)) continue
      best = { prefix: prefix.turns, turns: macro.turns, end }
      ;[bestValue, bestCost] = [value, cost]
    }
  }
  return best
}

/**
 * Where two parts are exchanged: a block is meant another way round, so that five go round, and these are brought
 * together by two sequences that take three round each. The second is looked up by what it has to do.
 */
function bestOfTwo(search: JoinSearch, state: State): JoinWay | undefined {
  const { puzzle, technique, judge } = search
  const now = judge.begin(state)
  const macros = setUpMacros(puzzle, technique.sequences.join('|')).filter(
    ({ moved }) => moved.length === 3,
  )
  const byCycle = new Map(macros.map((each) => [writtenCycle(goesBy(puzzle, each)), each] as const))
  let best: JoinWay | undefined
  const firsts = macros.filter((each) => judge.after(each) >= now - 1)
  for (const first of firsts) {
    const middle = doSequence(first, state)
    for (const cycle of judge.cyclesLeft(middle)) {
      const second = byCycle.get(cycle)
      if (!second) continue
      const end = doSequence(second, middle)
      const turns = simplify(puzzle, [...first.turns, ...second.turns])
      const way = { prefix: [], turns, end }
      if (judge.begin(end) > now && judge.keeps(end) && (!best || lengthOf(way) < lengthOf(best)))
        best = way
    }
  }
  return best
}

/** Positions that are looked at where no sequence helps. */
const MOST_SEARCHED = 3000

/** The fewest turns of single layers that bring more together, where the parts have few ways to lie. */
function searched({ puzzle, judge }: JoinSearch, state: State): JoinWay | undefined {
  const now = judge.begin(state)
  const turns = layersOf(puzzle).flatMap((grip) =>
    puzzle.turns.filter((turn) => turn.grip === grip),
  )
  const seen = new Set([judge.look(state)])
  interface Row {
    readonly state: State
    readonly turns: readonly Turn[]
  }
  const rows: Row[] = [{ state, turns: [] }]
  for (const row of rows)
    for (const turn of turns) {
      if (!isFresh(puzzle, row.turns.at(-1), turn)) continue
      const end = turnFreely(puzzle, row.state, turn, new Uint8Array(state.length))
      const look = judge.look(end)
      if (seen.has(look)) continue
      if (seen.size >= MOST_SEARCHED) return undefined
      seen.add(look)
      const made = [...row.turns, turn]
      if (judge.begin(end) > now && judge.keeps(end)) return { prefix: [], turns: made, end }
      rows.push({ state: end, turns: made })
    }
  return undefined
}
