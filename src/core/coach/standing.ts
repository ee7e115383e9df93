/**
 * Where a solver stands on a route: what is owed (set-up turns to be undone, the next first) and
 * what is borrowed (pieces that were right and are out of place now, with the step that brings them
 * back). Both are read off the route by replaying it.
 */
import type { Puzzle } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { must } from '../result'
import { IDENTITY, multiply, type Rotation } from '../rotation'
import { stagesOf, type Condition, type School, type Variant } from '../schools/school'
import { isSolved, readState, turnFreely, type State } from '../state'
import { frameMeeting, pieceMeets, piecesMeeting, piecesOf } from './goal'
import { namingOf, readWith, really, type Naming } from './naming'
import { holdTurnsOf, inClaims, type Route, type RouteStep, type RouteTurn } from './route'

export interface TapeTurn extends RouteTurn {
  /** Positions among the route's stages, and among all its steps. */
  readonly stage: number
  readonly step: number
}

/** A route replayed: position n is after n turns. */
export interface Trail {
  readonly route: Route
  readonly steps: readonly RouteStep[]
  readonly tape: readonly TapeTurn[]
  readonly states: readonly State[]
  readonly frames: readonly Rotation[]
  /** The states as they are read: with equal pieces under the names of the homes that they go to. */
  readonly read: readonly State[]
  readonly naming: Naming
  /** For each step, the position of its first turn; one more entry for the end. */
  readonly firstOfStep: readonly number[]
  readonly stageOfStep: readonly number[]
}

/** Replays a route. Throws if it names a turn that the puzzle does not have. */
export function trailOf(puzzle: Puzzle, stored: Route): Trail {
  const route = inClaims(stored)
  const steps: RouteStep[] = []
  const stageOfStep: number[] = []
  const firstOfStep = [0]
  const tape: TapeTurn[] = []
  const states = [must(readState(puzzle, route.from))]
  const frames = [route.stages.flatMap((stage) => stage.steps)[0]?.frame ?? IDENTITY]
  route.stages.forEach((stage, s) =>
    stage.steps.forEach((step) => {
      // The sides may be meant otherwise from a step on.
      frames[tape.length] = step.frame
      for (const routeTurn of step.turns) {
        const turn = puzzle.turnByName.get(routeTurn.name)
        if (!turn) throw new Error(`the route names a turn that does not exist: ${routeTurn.name}`)
        const [state, frame] = [states[tape.length], frames[tape.length]]
        states.push(turnFreely(puzzle, state, turn, new Uint8Array(state.length)))
        frames.push(turn.whole ? multiply(turn.rotation, frame) : frame)
        tape.push({ ...routeTurn, stage: s, step: steps.length })
      }
      steps.push(step)
      stageOfStep.push(s)
      firstOfStep.push(tape.length)
    }),
  )
  const naming = namingOf(puzzle, route)
  const read = naming.length === 0 ? states : states.map((state) => readWith(naming, state))
  return { route, steps, tape, states, read, naming, frames, firstOfStep, stageOfStep }
}

/** How it is held after so many turns of a step, as that step means the sides: the next one may mean them otherwise. */
export function frameOfStep(
  puzzle: Puzzle,
  { frames, firstOfStep, tape }: Trail,
  step: number,
  turns: number,
): Rotation {
  const at = firstOfStep[step] + turns
  if (turns === 0 || at < firstOfStep[step + 1]) return frames[at]
  const last = puzzle.turnByName.get(tape[at - 1].name)
  return last?.whole ? multiply(last.rotation, frames[at - 1]) : frames[at - 1]
}

/** The states that the card of a step speaks of: once its hold is taken, and after its last turn. */
export function statesOfStep({ steps, states, firstOfStep }: Trail, step: number) {
  return {
    held: states[firstOfStep[step] + holdTurnsOf(steps[step])],
    end: states[firstOfStep[step + 1]],
  }
}

/** Undo turns of begun set-ups that are still to come, the next first; and the half turn of a side half done. */
export function owedAt(puzzle: Puzzle, trail: Trail, done: number): string[] {
  const { tape } = trail
  const stack: string[] = []
  for (const { name, role } of tape.slice(0, done)) {
    const turn = puzzle.turnByName.get(name)
    if (role === 'setup' && turn) stack.push(puzzle.turns[turn.inverse].name)
    if (role === 'undo') stack.pop()
  }
  return [...sideOwedAt(trail, done), ...stack.reverse()]
}

function sideOwedAt({ tape, steps, firstOfStep }: Trail, done: number): string[] {
  const step = tape[done - 1]?.step
  const side = step === undefined ? undefined : steps[step].workSide
  if (side === undefined || done === firstOfStep[step + 1]) return []
  const made = tape.slice(firstOfStep[step], done).filter(({ name }) => name === side)
  return made.length % 2 === 1 ? [side] : []
}

export interface Borrowed {
  /** Piece id. */
  readonly piece: string
  /** Position among all steps of the step that brings it back. */
  readonly backAtStep: number
}

/**
 * @param step position of the step being worked on
 * @param done turns done so far
 */
export function borrowedAt(
  puzzle: Puzzle,
  school: School,
  trail: Trail,
  step: number,
  done: number,
): Borrowed[] {
  const { route, steps, read, naming, frames, firstOfStep, stageOfStep } = trail
  if (step >= steps.length) return []
  const base = directionOfName(route.base)
  const stage = stageOfStep[step]
  const firstStep = stageOfStep.indexOf(stage)
  const isRight = (condition: Condition, piece: number, at: number) =>
    pieceMeets(puzzle, condition, base, read[at], piece, frames[at])
  return demandsDuring(school, route.variant, stage).flatMap((condition) =>
    piecesOf(puzzle, condition, base).flatMap((piece) => {
      if (isRight(condition, piece, done)) return []
      const begun = firstOfStep.slice(firstStep, step + 1)
      if (!begun.some((at) => isRight(condition, piece, at))) return []
      const later = steps.findIndex(
        (_, s) => s >= step && isRight(condition, piece, firstOfStep[s + 1]),
      )
      const id = puzzle.pieces[really(naming, piece)].id
      return later < 0 ? [] : [{ piece: id, backAtStep: later }]
    }),
  )
}

/** Pieces that are right now and shall stay so: to be left alone. As indices. */
export function safeAt(
  puzzle: Puzzle,
  school: School,
  { route, stageOfStep, read, naming, frames }: Trail,
  step: number,
  done: number,
): number[] {
  if (step >= stageOfStep.length) return []
  const demands = demandsDuring(school, route.variant, stageOfStep[step])
  const base = directionOfName(route.base)
  return piecesMeeting(puzzle, demands, base, read[done], frames[done]).map((piece) =>
    really(naming, piece),
  )
}

/** What must not be lost during a stage: the goal before it, or in a first stage its own. */
function demandsDuring(school: School, variant: Variant, stage: number): readonly Condition[] {
  const stages = stagesOf(school, variant)
  return (stages[stage - 1] ?? stages[stage]).goal
}

/** What a route is asked for when stages are counted. */
export type Following = Pick<Route, 'variant' | 'base' | 'naming'>

/** How many stages of a school a state has behind it, as a route reads it. */
export function stagesMet(
  puzzle: Puzzle,
  school: School,
  following: Following,
  given: State,
): number {
  const stages = stagesOf(school, following.variant)
  if (isSolved(puzzle, given)) return stages.length
  const base = directionOfName(following.base)
  const state = readWith(namingOf(puzzle, following), given)
  for (let n = stages.length; n > 0; n--)
    if (frameMeeting(puzzle, stages[n - 1].goal, base, state) !== undefined) return n
  return 0
}
