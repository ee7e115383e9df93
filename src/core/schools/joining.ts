/** What schools that play a puzzle as a smaller box ask for. */
import type { Vector } from '../rotation'
import type { Condition, Selection, Stage } from './school'

const must = (demand: Condition['must'], select: Selection): Condition => ({
  layer: 'base',
  must: demand,
  select,
})

export const together = (select: Selection): Condition => must('together', select)
export const placed = (select: Selection): Condition => must('placed', select)
export const solvable = (select: Selection): Condition => must('solvable', select)

/** Each with its parts together, where it belongs. */
export const whole = (select: Selection): Condition[] => [together(select), placed(select)]

/** Stages of another school on the smaller box; what they all keep beside their own goals. */
export const playedAs = (
  size: Vector,
  school: string,
  stages: readonly string[],
  keep: readonly Condition[] = [],
): Stage => ({
  id: `as-${stages[0]}`,
  name: 'As a smaller box',
  aim: 'What is joined is brought home.',
  base: 'D',
  goal: [together({ as: size }), ...keep],
  technique: { kind: 'as', size, school, stages },
})
