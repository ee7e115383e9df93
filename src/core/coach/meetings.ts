/**
 * Where the last turns of one step and the first of the next are of one layer: a card says so, and they are
 * counted as the one turn that they are together, or as none.
 */
import {
  countJoined,
  joinedTurn,
  joinedWith,
  partnerOf,
  type JoinedTurns,
} from '../notation/rewrite'
import type { Said } from '../claims/claim'
import type { Puzzle, Turn } from '../puzzle/compile'
import { stepsOf, turnsOfRoute, type Route, type RouteMeeting, type RouteStep } from './route'
import type { Trail } from './standing'

/** Two turns of a route, as positions on its tape. */
export interface Meeting {
  readonly first: number
  readonly second: number
  /** Both together; undefined if they cancel. */
  readonly one?: Turn
}

/** All meetings of a row of turns, in order: of what has met already, what it is then. */
export function meetingsOf(puzzle: Puzzle, tape: readonly Turn[]): Meeting[] {
  let made: JoinedTurns | undefined
  return tape.flatMap((turn, second): Meeting[] => {
    const partner = partnerOf(puzzle, made, turn)
    made = joinedWith(puzzle, made, turn, second)
    // How the whole puzzle is held is told by each card for itself.
    if (!partner || turn.whole) return []
    return [{ first: partner.at, second, one: joinedTurn(puzzle, partner.turn, turn) }]
  })
}

/** The turns between two that meet, once what meets among them has met. */
export function turnsBetween(
  tape: readonly Turn[],
  meetings: readonly Meeting[],
  { first, second }: Meeting,
): Turn[] {
  const left: (Turn | undefined)[] = [...tape.slice(0, second)]
  for (const inner of meetings) {
    if (inner.first <= first || inner.second >= second) continue
    left[inner.first] = inner.one
    left[inner.second] = undefined
  }
  return left.slice(first + 1).filter((turn) => turn !== undefined)
}

const known = new WeakMap<Trail, readonly Meeting[]>()

export const turnsOnTape = (puzzle: Puzzle, { tape }: Trail): Turn[] =>
  tape.flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])

/** The meetings on the tape of a trail. */
export function meetingsOn(puzzle: Puzzle, trail: Trail): readonly Meeting[] {
  const found = known.get(trail) ?? meetingsOf(puzzle, turnsOnTape(puzzle, trail))
  known.set(trail, found)
  return found
}

type Uncounted = Omit<Route, 'turnCount' | 'quarterCount'>

/** A route with its turns counted as they are together; each card knows which of its turns meet others. */
export function withMeetings(puzzle: Puzzle, route: Uncounted): Route {
  const tape = turnsOfRoute(route).flatMap(({ name }) => puzzle.turnByName.get(name) ?? [])
  const meetings = meetingsOf(puzzle, tape)
  let begins = 0
  const steps = stepsOf(route)
  const meeting = new Map(
    steps.map((step, s) => {
      const ends = begins + step.turns.length
      const endsNext = ends + (steps[s + 1]?.turns.length ?? 0)
      const meets = meetings
        .filter(({ first, second }) => first >= begins && first < ends && second < endsNext)
        .map(({ first, second }): RouteMeeting => ({
          here: tape[first].name,
          there: tape[second].name,
          one: joinedTurn(puzzle, tape[first], tape[second])?.name,
          isWithin: second < ends,
        }))
      begins = ends
      return [step, meets.length > 0 ? meets : undefined] as const
    }),
  )
  return {
    ...route,
    stages: route.stages.map((stage) => ({
      ...stage,
      steps: stage.steps.map((step) => ({ ...step, meets: meeting.get(step) })),
    })),
    ...countJoined(puzzle, tape),
  }
}

/** What a card claims of those within it, or of those with the next step. */
export const meetingClaims = (
  { meets = [] }: Pick<RouteStep, 'meets'>,
  where: 'within' | 'next',
): Said =>
  meets
    .filter(({ isWithin }) => isWithin === (where === 'within'))
    .map(({ here, there, one, isWithin }) => ({
      ...{ kind: 'meets', here, there },
      ...(one === undefined ? {} : { one }),
      ...(isWithin ? { isWithin } : {}),
    }))
