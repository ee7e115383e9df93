/**
 * Series: three pieces of one orbit at a time by a sequence that is known by heart, brought to bear by a
 * set-up that is undone afterwards. What no goal has asked for yet may move; all else is left as it is.
 */
import { asNamed } from '../../analysis/layers'
import { IDENTITY, INVERSE, multiply, type Rotation } from '../../rotation'
import { memoised } from '../../memo'
import { inverseOf, rehold } from '../../notation/rewrite'
import type { Puzzle, Turn } from '../../puzzle/compile'
import { directionOfLetter, type Direction } from '../../puzzle/directions'
import type { Condition, Technique } from '../../schools/school'
import { sequence, sequenceOf, type Sequence } from '../../notation/sequence'
import { placeOf } from '../../state'
import { baseCyclesOf, cycleOf, shortCycles, type BaseCycle } from '../../universal/baseCycles'
import { cyclesHome, turnsOfCycle, type CycleStep } from '../../universal/cyclesHome'
import { orbitsWith, workOf } from '../../universal/orbitsAtWork'
import { Setups } from '../../universal/setups'
import { frameMeeting, pieceFor, piecesOf, relativeTo } from '../goal'
import { selected } from '../selections'
import { doRest } from './universally'
import {
  doing,
  held,
  holding,
  layerTurns,
  proceed,
  spins,
  type PlannedTurn,
  type StageContext,
  type Workpiece,
} from '../workpiece'

/** Cycles that are looked at, over all attempts to find a shorter way. */
const BUDGET = 800

/** Set-up turns from any hold; from the first hold there may be more, so that every three are reached. */
const SETUP_TURNS = 2

interface Kit {
  readonly orbit: number
  readonly setups: Setups
  /** For each base cycle, by its turns, the hold in which it is done as it is known. */
  readonly known: ReadonlyMap<string, Rotation>
}

export function doSeries(
  context: StageContext,
  work: Workpiece,
  technique: Extract<Technique, { kind: 'series' }>,
  goalBefore: readonly Condition[],
): void {
  const { puzzle, stage, base } = context
  const side = held(stage).base
  const pieces = selected(puzzle, technique.select, base)
  const { frame } = work.held()
  const homeOf = (p: number) => puzzle.place[24 * p + frame]
  const wanted = pieces.map(homeOf)
  const kept = goalBefore
    .filter(({ must }) => must === 'home')
    .flatMap((condition) => piecesOf(puzzle, condition, base).map(homeOf))
  // One may be left over where the stage says so: whichever it costs most to bring home.
  const spare = stage.goal.some((condition) => condition.spare === 1)
  const parts = (spare ? wanted : [undefined]).map((left) => ({
    wanted: wanted.filter((place) => place !== left),
    kept,
  }))
  const kit = kitOfStage({ puzzle, stage, goalBefore }, base, technique)
  const sequencesAreGiven = technique.sequences !== undefined
  const best = bestWay()
  if (!best) throw new Error(`the series of the stage ${stage.id} does not bring its pieces home`)
  // What is derived for an orbit may move others that have their turn later; here they had it already.
  if (!sequencesAreGiven && !staysAfter(best)) return doRest(context, work, 'noWayOn')
  // How the puzzle has been turned since the way was found.
  let turned: Rotation = IDENTITY
  if (best.turn.turns.length > 0) work.step({ kind: 'even', of: pieces }, doing(best.turn.turns))
  for (const step of best.steps) make(step)

  /** After a turn only if there is no way without: then odd and even ask for it. */
  function bestWay(): { turn: Sequence; steps: readonly CycleStep[] } | undefined {
    const none = sequence(puzzle, '')
    const straight = waysAfter(none)
    const ways =
      straight.length > 0 || !technique.turn
        ? straight
        : layerTurns(puzzle, technique.turn).slice(1).flatMap(waysAfter)
    return ways.reduce<(typeof ways)[number] | undefined>(
      (a, b) => (a === undefined || b.length < a.length ? b : a),
      undefined,
    )
  }

  function waysAfter(turn: Sequence) {
    const position = proceed(work.held(), turn)
    const isKept =
      goalBefore.length === 0 ||
      frameMeeting(puzzle, goalBefore, base, position.state) !== undefined
    if (!isKept) return []
    const from = relativeTo(puzzle, position.state, position.frame)
    const placed = (piece: number) => placeOf(puzzle, position.state, piece)
    const wish =
      context.first === undefined || context.prefer === undefined
        ? undefined
        : { first: placed(context.first), third: placed(context.prefer) }
    return parts.flatMap((part) => {
      const found = cyclesHome(puzzle, kit.orbit, kit.setups, from, wish, part, BUDGET)
      if (!found) return []
      const length = found.steps.reduce((sum, { cycle }) => sum + cycle.length, turn.turns.length)
      return [{ turn, steps: found.steps, length }]
    })
  }

  /** Whether what came before is as it was at the end of a way. */
  function staysAfter({ turn, steps }: { turn: Sequence; steps: readonly CycleStep[] }): boolean {
    const turns = [...turn.turns, ...steps.flatMap(({ cycle }) => turnsOfCycle(puzzle, cycle))]
    const end = proceed(work.held(), sequenceOf(puzzle, turns))
    return (
      goalBefore.length === 0 || frameMeeting(puzzle, goalBefore, base, end.state) !== undefined
    )
  }

  /** One step: the hold in which the sequence is known, set up, do, undo. */
  function make({ cycle, pieces: homes, thirds }: CycleStep): void {
    const { state } = work.held()
    // Before the hold is changed: places are told as the puzzle was held when the way was found.
    const others = thirds.map(({ place, arrive }) => ({
      piece: puzzle.pieces.findIndex(
        (_, p) => placeOf(puzzle, state, p) === puzzle.place[24 * place + turned],
      ),
      arrive,
    }))
    // A set-up that met the sequence has become part of it: it is done in the hold that there is.
    const hold = kit.known.get(nameOf(cycle.base.turns)) ?? turned
    const spin = spins(puzzle, side).find((each) => multiply(each.hold, turned) === hold)
    if (!spin) throw new Error('no turn of the whole puzzle takes that hold')
    turned = hold
    const as = (turns: readonly Turn[]) =>
      rehold(puzzle, turns, hold).map((turn) => asNamed(puzzle, turn))
    const three = homes.map((home) => pieceFor(puzzle, home, frame))
    const done = as(cycle.base.turns)
    work.step(
      {
        kind: 'series',
        pieces: three as unknown as [number, number, number],
        of: pieces,
        sequence: done.map(({ name }) => name),
        thirds: others,
      },
      [
        ...holding(spin.turns),
        ...withRole(as(cycle.setup), 'setup'),
        ...doing(done),
        ...withRole(as(inverseOf(puzzle, cycle.setup)), 'undo'),
      ],
    )
  }
}

/** The tables of a stage: they differ by the orbits that it asks for, hardly by the side that is first. */
export function kitOfStage(
  { puzzle, stage, goalBefore }: Pick<StageContext, 'puzzle' | 'stage'> & AfterGoal,
  base: Direction,
  { select, sequences = [] }: Extract<Technique, { kind: 'series' }>,
): Kit {
  // The shape is that of all pieces, and asks of none where it lies.
  const asked = [...goalBefore, ...stage.goal]
    .filter(({ must }) => must !== 'in shape')
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
  return kitFor(
    puzzle,
    [
      held(stage).base.letter,
      orbitsWith(puzzle, selected(puzzle, select, base))[0],
      orbitsWith(puzzle, asked).join(),
      sequences.join('|'),
    ].join(';'),
  )
}

interface AfterGoal {
  readonly goalBefore: readonly Condition[]
}

const withRole = (turns: readonly Turn[], role: 'setup' | 'undo'): PlannedTurn[] =>
  turns.map((turn) => ({ turn, role }))

const nameOf = (turns: readonly Turn[]): string => turns.map(({ name }) => name).join(' ')

/** The tables for some sequences about one axis: every hold about it, forwards and back. */
const kitFor = memoised((puzzle: Puzzle, key: string): Kit => {
  const [letter, nth, asked, sequences] = key.split(';')
  const { orbits } = workOf(puzzle)
  const orbit = Number(nth)
  const stays = new Set(asked.split(',').map(Number))
  const free = [...orbits.keys()].filter((o) => !stays.has(o))
  if (sequences === '') {
    const short = shortCycles(puzzle, orbit)
    const bases = short.length > 0 ? short : (baseCyclesOf(puzzle).get(orbit) ?? [])
    return { orbit, setups: new Setups(puzzle, bases, depthsOf(bases)), known: new Map() }
  }
  const known = new Map<string, Rotation>()
  const bases: BaseCycle[] = []
  const axis = directionOfLetter(letter)
  for (const text of sequences.split('|')) {
    const own = sequence(puzzle, text).turns
    for (const turns of [own, inverseOf(puzzle, own)])
      for (const spin of spins(puzzle, axis)) {
        const turned = rehold(puzzle, turns, INVERSE[spin.hold])
        const cycle = cycleOf(puzzle, turned, free)
        if (!cycle || !orbits[orbit].orbit.places.includes(cycle.places[0]))
          throw new Error(`${text} is no series of three pieces here`)
        if (known.has(nameOf(turned))) continue
        known.set(nameOf(turned), spin.hold)
        bases.push(cycle)
      }
  }
  return { orbit, setups: new Setups(puzzle, bases, depthsOf(bases), true), known }
})

const depthsOf = (bases: readonly BaseCycle[]): number[] =>
  bases.map((_, i) => (i === 0 ? Infinity : SETUP_TURNS))
