/** A route home: plain JSON, in words and turns. The bench draws it and computes nothing. */
import type { OrbitPlan } from '../universal/orbitPlan'
import { NOTHING_SAID, type Said } from '../claims/claim'
import type { TurnRole } from './workpiece'

export interface RouteTurn {
  /** Canonical name. */
  readonly name: string
  readonly role: TurnRole
  readonly run?: number
}

export interface Hints {
  /** What to look for, nothing more. */
  readonly nudge: Said
  /** Which piece and which place; nothing where that is the first line of the card, or what it begins with. */
  readonly pointer: Said
}

/** One piece to look for. Lines are numbered in their order, on the card and on the windows. */
export interface RouteLine {
  /** Id of the piece that lies there after the hold turns. */
  readonly piece: string
  /** Id of the place that it goes to, in the same hold. */
  readonly to?: string
  readonly says: Said
}

/** Two turns of one layer, by canonical name, and what they are together; they cancel if there is no `one`. */
export interface RouteMeeting {
  readonly here: string
  readonly there: string
  readonly one?: string
  /** Both are of one step: the first shows a position, and is made to look. */
  readonly isWithin: boolean
}

export interface RouteStep {
  readonly id: string
  readonly kind: string
  readonly lookFor: Said
  /** The pieces one by one, where there are few; `lookFor` then says it in one. */
  readonly lines?: readonly RouteLine[]
  readonly hold: Said
  readonly check: Said
  /** What it means if the check does not hold, and the way back. */
  readonly ifNot?: Said
  /** In a long row of turns: after so many of the step's turns there is something to see. */
  readonly halfway?: { readonly after: number; readonly says: Said }
  readonly hints: Hints
  /** One sentence on what is peculiar here: counts, what to leave out, what comes back. */
  readonly note?: Said
  /** Where its last turns and the first of the next step are of one layer. */
  readonly meets?: readonly RouteMeeting[]
  readonly turns: readonly RouteTurn[]
  /** Done as on a smaller box of that size: joined parts count as one piece, in its words and on the windows. */
  readonly as?: readonly [number, number, number]
  /** The state of that smaller box before the first turn, where equal pieces are read for each other. */
  readonly reading?: string
  /** The half turn of the side on which all else is half done after an odd number of them. */
  readonly workSide?: string
  /** Of a step that repeats a trigger or an algorithm: how often, and where the count stands. */
  readonly runs?: { readonly times: number; readonly before: number; readonly total: number }
  /** The algorithm as it is remembered, without repeats. */
  readonly algorithm: readonly string[]
  /** Piece ids to attend to, and the places they go to (in the hold after the hold turns). */
  readonly pieces: readonly string[]
  readonly places: readonly string[]
  /** Pieces that could be taken instead, nearest first. */
  readonly others: readonly {
    readonly piece: string
    /** Where three go round: the first of them. */
    readonly first?: string
    readonly says: Said
  }[]
  /** The frame before the first turn: the rotation that every piece will have when home. */
  readonly frame: number
  /** Index of the case among those of the stage. */
  readonly caseIndex?: number
}

/** What is claimed of a planned step; the rest of its card is read off the plan. */
export type StepClaims = Pick<RouteStep, 'lookFor' | 'check' | 'hints'> &
  Partial<
    Pick<
      RouteStep,
      | 'ifNot'
      | 'note'
      | 'hold'
      | 'lines'
      | 'runs'
      | 'algorithm'
      | 'pieces'
      | 'places'
      | 'others'
      | 'caseIndex'
      | 'workSide'
    >
  >

/** How many turns of the whole puzzle stand first: its hold is taken by them. */
export function holdTurnsOf({
  turns,
}: {
  readonly turns: readonly { readonly role: TurnRole }[]
}): number {
  const own = turns.findIndex(({ role }) => role !== 'hold')
  return own < 0 ? turns.length : own
}

/** The turns of a step once its hold is taken. */
export const ownTurnsOf = (step: Pick<RouteStep, 'turns'>): readonly RouteTurn[] =>
  step.turns.slice(holdTurnsOf(step))

/** So many lines a card has at most. */
export const MOST_LINES = 3

/** All that a card says. */
export const saidOn = ({ lines = [], others, halfway, hints, ...step }: RouteStep): Said[] => [
  step.lookFor,
  step.hold,
  step.check,
  step.ifNot ?? [],
  step.note ?? [],
  hints.nudge,
  hints.pointer,
  halfway?.says ?? [],
  ...[...lines, ...others].map(({ says }) => says),
]

/** The same step with all that it says changed. */
export const withSaid = (step: RouteStep, change: (said: Said) => Said): RouteStep => ({
  ...step,
  lookFor: change(step.lookFor),
  hold: change(step.hold),
  check: change(step.check),
  ...(step.ifNot ? { ifNot: change(step.ifNot) } : {}),
  ...(step.note ? { note: change(step.note) } : {}),
  hints: { nudge: change(step.hints.nudge), pointer: change(step.hints.pointer) },
  ...(step.lines
    ? { lines: step.lines.map((line) => ({ ...line, says: change(line.says) })) }
    : {}),
  ...(step.halfway ? { halfway: { ...step.halfway, says: change(step.halfway.says) } } : {}),
  others: step.others.map((other) => ({ ...other, says: change(other.says) })),
})

/** A hint says nothing that the card begins with. */
export function withoutEcho(step: RouteStep): RouteStep {
  const { hints, lookFor, lines = [] } = step
  const own = JSON.stringify(hints.pointer)
  const isEcho = [lines.at(0)?.says, lookFor.slice(0, 1)].some(
    (each) => JSON.stringify(each) === own,
  )
  return isEcho ? { ...step, hints: { ...hints, pointer: NOTHING_SAID } } : step
}

export interface RouteStage {
  readonly id: string
  readonly name: string
  readonly aim: string
  /** True if the goal was met before the first turn. */
  readonly done: boolean
  readonly steps: readonly RouteStep[]
}

export interface Route {
  readonly puzzle: string
  readonly school: string
  readonly variant: Readonly<Record<string, string>>
  /** The state before the first turn, as `writeState` writes it. */
  readonly from: string
  /**
   * Where equal pieces had to be told apart: the piece `is` (an id) goes to the home of `as`, where it looks
   * the same if it is `turned` before, in place (a rotation).
   */
  readonly naming?: readonly { readonly as: string; readonly is: string; readonly turned: number }[]
  /** The side of the finished puzzle that the solver starts with, and its colour. */
  readonly base: string
  readonly baseColour: string
  readonly stages: readonly RouteStage[]
  readonly turnCount: number
  readonly quarterCount: number
  /** Different sequences that the solver must know for this route. */
  readonly algorithms: readonly string[]
  /** How often the solver must look and decide: one a step. */
  readonly looks: number
  /** Turns that the first way found had more, where others were tried. */
  readonly saved?: number
  /** The order of the work, where it takes a search to find it. */
  readonly orbitPlan?: OrbitPlan
}

/** A route as it was stored before there were claims: finished sentences in their place. */
interface Sentences {
  readonly sentence?: string
}

const asSaid = (said: unknown): Said => {
  if (typeof said !== 'string') return said as Said
  return said === '' ? NOTHING_SAID : [{ kind: 'text', text: said }]
}

const linesInClaims = <T extends { readonly says: Said }>(told: T): T => {
  const { sentence, ...rest } = told as T & Sentences
  return sentence === undefined ? told : ({ ...rest, says: asSaid(sentence) } as unknown as T)
}

/** The same route with its sentences as claims, whenever it was stored. */
export function inClaims(route: Route): Route {
  const isOld = stepsOf(route).some(({ check }) => typeof check === 'string')
  if (!isOld) return route
  const step = (each: RouteStep): RouteStep => ({
    ...withSaid(each, asSaid),
    ...(each.lines ? { lines: each.lines.map(linesInClaims) } : {}),
    ...(each.halfway ? { halfway: linesInClaims(each.halfway) } : {}),
    others: each.others.map(linesInClaims),
  })
  return {
    ...route,
    stages: route.stages.map((stage) => ({ ...stage, steps: stage.steps.map(step) })),
  }
}

export const turnsOfStage = (stage: RouteStage): RouteTurn[] =>
  stage.steps.flatMap(({ turns }) => [...turns])

export const turnsOfRoute = (route: Pick<Route, 'stages'>): RouteTurn[] =>
  route.stages.flatMap(turnsOfStage)

export const stepsOf = (route: Pick<Route, 'stages'>): RouteStep[] =>
  route.stages.flatMap(({ steps }) => [...steps])
