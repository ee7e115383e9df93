/** Optimal: the fewest turns from the table of all states, as one step. */
import { stepsOf } from '../route'
import { planShortest } from '../shortest'
import { PlanProblem, type StageContext, type Workpiece } from '../workpiece'
import { give } from './universally'

/** @throws PlanProblem where no turns lead home */
export function doOptimal({ puzzle, school, hand }: StageContext, work: Workpiece): void {
  const route = planShortest(puzzle, school, work.state, hand)
  if (!route.ok) throw new PlanProblem(route.problem)
  give(puzzle, work, stepsOf(route.value))
}
