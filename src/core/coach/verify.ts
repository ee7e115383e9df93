/** A route judged from outside: replayed turn by turn, its stages' goals checked in order. */
import type { Puzzle } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { stagesOf, type School } from '../schools/school'
import { isSolved, type State } from '../state'
import { frameMeeting } from './goal'
import type { Route } from './route'
import { trailOf } from './standing'

export interface StageEnd {
  readonly stage: string
  readonly state: State
  /** Whether the goal holds there; for the last stage also whether the puzzle is solved. */
  readonly met: boolean
}

export function statesAfterStages(puzzle: Puzzle, school: School, route: Route): StageEnd[] {
  const { states, stageOfStep, firstOfStep, tape } = trailOf(puzzle, route)
  const base = directionOfName(route.base)
  const stages = stagesOf(school, route.variant)
  return stages.map((stage, s) => {
    const lastStep = stageOfStep.findLastIndex((of) => of <= s)
    const state = states[lastStep < 0 ? 0 : firstOfStep[lastStep + 1]]
    const met = frameMeeting(puzzle, stage.goal, base, state) !== undefined
    const isLast = s === stages.length - 1
    return {
      stage: stage.id,
      state,
      met: met && (!isLast || isSolved(puzzle, states[tape.length])),
    }
  })
}
