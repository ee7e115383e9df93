/** A state being worked on by a technique: every turn is done on the engine as it is planned. */
import { turnSide } from '../analysis/sides'
import { directionOfLetter, opposite, type Direction } from '../puzzle/directions'
import { memoised } from '../memo'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { Problem } from '../result'
import type { School, Stage } from '../schools/school'
import { handCost, type Hand } from '../notation/handCost'
import { doSequence, sequence, type Sequence } from '../notation/sequence'
import { turnFreely, type State } from '../state'
import type { Aim } from './aim'
import { piecesOfSide } from './goal'
import type { Route } from './route'

/** `prepare`: a turn of a layer that brings a case into the position in which its algorithm begins. */
export type TurnRole = 'hold' | 'prepare' | 'setup' | 'do' | 'undo'

export interface PlannedTurn {
  readonly turn: Turn
  readonly role: TurnRole
  /** Which repeat of a trigger or algorithm it belongs to, from 1. */
  readonly run?: number
}

export interface PlannedStep {
  readonly aim: Aim
  readonly turns: readonly PlannedTurn[]
  /** The state and the frame before the first turn. */
  readonly before: State
  readonly frame: Rotation
  /** Everything is home before the last turns of the technique, so they are left out. */
  readonly endsEarly?: boolean
}

/** What a technique is told. */
export interface StageContext {
  readonly puzzle: Puzzle
  readonly school: School
  readonly stage: Stage
  /** The side of the finished puzzle, held as defined, that has the base colour. */
  readonly base: Direction
  /** The piece that the solver wants to take next. */
  readonly prefer?: number
  /** Where three go round: the first of them, to which the preferred one shall be the third. */
  readonly first?: number
  /** The hand that turns most. */
  readonly hand: Hand
  /** Colours as the copy has them. */
  readonly scheme: Scheme
}

/** Why a technique cannot go on, for a solver to read: of the position or the puzzle, not a defect. */
export class PlanProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.sentence)
  }
}

/** The sequences of a stage do not lead on from a position as it is read. */
export class NoWay extends Error {}

export class Workpiece {
  readonly steps: PlannedStep[] = []
  /** Hand cost of the steps so far; each step begins with a fresh grip. */
  cost = 0
  /** Whole-puzzle turns that open the next step. */
  private opening: Turn[] = []
  private opened: Position | undefined
  /** What a technique has found out for the route as a whole. */
  found: Pick<Route, 'saved' | 'orbitPlan'> = {}

  constructor(
    readonly puzzle: Puzzle,
    public state: State,
    /** The rotation that every piece will have when it is home, in the present hold. */
    public frame: Rotation,
    readonly hand: Hand = 'right',
  ) {}

  /** Takes another hold; the turns become the first ones of the next step. */
  hold(turns: readonly Turn[]): void {
    this.opening.push(...turns)
    this.opened = after(this.puzzle, this.state, this.frame, this.opening)
  }

  /** Means the sides otherwise from here on: the rotation that every piece will have when it is home, as it is held. */
  mean(frame: Rotation): void {
    const turned = multiply(this.held().frame, INVERSE[this.frame])
    this.frame = multiply(INVERSE[turned], frame)
    this.opened = after(this.puzzle, this.state, this.frame, this.opening)
  }

  step(aim: Aim, turns: readonly PlannedTurn[]): void {
    const all = [...this.opening.map((turn) => ({ turn, role: 'hold' as const })), ...turns]
    this.opening = []
    this.opened = undefined
    this.steps.push({ aim, turns: all, before: this.state, frame: this.frame })
    const made = all.map(({ turn }) => turn)
    this.cost += handCost(made, this.hand)
    const { state, frame } = after(this.puzzle, this.state, this.frame, made)
    this.state = state
    this.frame = frame
  }

  /** The same piece of work, to be tried one way; what it costs counts from here. */
  copy(state: State): Workpiece {
    const copied = new Workpiece(this.puzzle, state, this.frame, this.hand)
    if (this.opening.length > 0) copied.hold(this.opening)
    return copied
  }

  /** The position as it will be when the opening hold is taken. */
  held(): Position {
    return this.opened ?? { state: this.state, frame: this.frame }
  }
}

/** State and frame after some turns; whole-puzzle turns carry the frame along. */
export function after(
  puzzle: Puzzle,
  state: State,
  frame: Rotation,
  turns: readonly Turn[],
): Position {
  if (turns.length === 0) return { state, frame }
  const next = new Uint8Array(state)
  for (const turn of turns) {
    turnFreely(puzzle, next, turn, next)
    if (turn.whole) frame = multiply(turn.rotation, frame)
  }
  return { state: next, frame }
}

/** A state with its frame: the rotation that every piece will have when it is home. */
export interface Position {
  readonly state: State
  readonly frame: Rotation
}

/** A position after a sequence; whole-puzzle turns carry the frame along. */
export const proceed = ({ state, frame }: Position, what: Sequence): Position => ({
  state: doSequence(what, state),
  frame: multiply(what.hold, frame),
})

/** No turn, and the turns of the outer layer with that letter. */
export const layerTurns = memoised((puzzle: Puzzle, letter: string): readonly Sequence[] => [
  sequence(puzzle, ''),
  ...puzzle.turns
    .filter((turn) => puzzle.grips[turn.grip].name === letter)
    .map((turn) => sequence(puzzle, turn.name)),
])

const spinsAbout = memoised((puzzle: Puzzle, letter: string): readonly Sequence[] => {
  const direction = directionOfLetter(letter)
  return [
    sequence(puzzle, ''),
    ...puzzle.turns
      .filter((turn) => turn.whole && turnSide(puzzle, turn.rotation, direction) === direction)
      .map((turn) => sequence(puzzle, turn.name)),
  ]
})

/** No turn, and the whole-puzzle turns that leave a direction where it is. */
export const spins = (puzzle: Puzzle, { letter }: Direction): readonly Sequence[] =>
  spinsAbout(puzzle, letter)

export const held = (stage: Stage): { base: Direction; last: Direction } => {
  const base = directionOfLetter(stage.base)
  return { base, last: opposite(base) }
}

/** The place with that name: 'UFR'. */
export function placeNamed(puzzle: Puzzle, name: string): number {
  const found = puzzle.pieces.findIndex(({ id }) => id === name)
  if (found < 0) throw new Error(`the puzzle has no place ${name}`)
  return found
}

/** Whether a place lies on one side, whatever fills it. */
export const isOnSide = (puzzle: Puzzle, place: number, side: Direction): boolean =>
  piecesOfSide(puzzle, side).includes(place)

export const doing = (turns: readonly Turn[], run?: number): PlannedTurn[] =>
  turns.map((turn) => ({ turn, role: 'do', ...(run === undefined ? {} : { run }) }))

export const preparing = (turns: readonly Turn[]): PlannedTurn[] =>
  turns.map((turn) => ({ turn, role: 'prepare' }))

export const holding = (turns: readonly Turn[]): PlannedTurn[] =>
  turns.map((turn) => ({ turn, role: 'hold' }))

/** A trigger some times over, its runs numbered from `first`. */
export const runsOf = (turns: readonly Turn[], times: number, first = 1): PlannedTurn[] =>
  Array.from({ length: times }, (_, i) => doing(turns, first + i)).flat()

/**
 * Marks turns that have the form S A S' as set up, do, undo; S as long as it can be while A keeps at
 * least one turn.
 */
export function asConjugate(puzzle: Puzzle, turns: readonly Turn[], run?: number): PlannedTurn[] {
  let s = 0
  while (
    2 * (s + 1) < turns.length &&
    puzzle.turns[turns[s].inverse] === turns[turns.length - 1 - s]
  )
    s++
  return turns.map((turn, i) => ({
    turn,
    role: i < s ? 'setup' : i >= turns.length - s ? 'undo' : 'do',
    ...(run === undefined ? {} : { run }),
  }))
}

const holdsBetween = memoised((puzzle: Puzzle, letters: string): readonly Sequence[] => {
  const [from, to] = [...letters].map(directionOfLetter)
  const whole = puzzle.turns.filter((turn) => turn.whole)
  return [sequence(puzzle, ''), ...whole.map((turn) => sequence(puzzle, turn.name))]
    .filter(({ hold }) => turnSide(puzzle, hold, from) === to)
    .sort((a, b) => a.costs.right - b.costs.right)
})

/** Turns of the whole puzzle, at most one, that bring one direction to another; easiest first. */
export const holdsBringing = (
  puzzle: Puzzle,
  from: Direction,
  to: Direction,
): readonly Sequence[] => holdsBetween(puzzle, from.letter + to.letter)
