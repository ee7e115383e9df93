/** A route judged from outside: replayed turn by turn, its stages' goals checked in order. */
import type { Puzzle } from '../puzzle/compile'
import { directionOfName } from '../puzzle/directions'
import { stagesOf, type School } from '../schools/school'
import { isSolved, type State } from '../state'
import { taught } from '../schools/taught'
import { frameMeeting } from './goal'
import type { Route } from './route'
import { trailOf } from './standing'

export interface StageEnd {
  readonly stage: string
  readonly state: State
  /** Whether the goal holds there, as it does when all looks home; for the last stage whether it does. */
  readonly met: boolean
}

export function statesAfterStages(puzzle: Puzzle, school: School, route: Route): StageEnd[] {
  const { states, read, stageOfStep, firstOfStep, tape } = trailOf(puzzle, route)
  const base = directionOfName(route.base)
  const stages = stagesOf(taught(puzzle, school), route.variant)
  return stages.map((stage, s) => {
    const lastStep = stageOfStep.findLastIndex((of) => of <= s)
    const state = read[lastStep < 0 ? 0 : firstOfStep[lastStep + 1]]
    const met = frameMeeting(puzzle, stage.goal, base, state) !== undefined
    const isLast = s === stages.length - 1
    return {
      stage: stage.id,
      state,
      met: isLast ? isSolved(puzzle, states[tape.length]) : met || isSolved(puzzle, state),
    }
  })
}
