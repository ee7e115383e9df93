/** Runs the technique of a stage on a workpiece. */
import { derivedStage } from '../schools/derived'
import { deriveCases, deriveCycle, stageKey, type Case } from './cases'
import { doCase } from './techniques/case'
import { countAndCycle } from './techniques/count'
import { gather } from './techniques/gather'
import { optimal } from './techniques/optimal'
import { triggerIn } from './techniques/trigger'
import { twistInPlace } from './techniques/twist'
import type { StageContext, Workpiece } from './workpiece'
import type { Condition, School, Stage } from '../schools/school'
import type { Puzzle } from '../puzzle/compile'

export function runTechnique(
  context: StageContext,
  goalBefore: readonly Condition[],
  work: Workpiece,
): void {
  const { puzzle, school, stage } = context
  const { technique } = stage
  switch (technique.kind) {
    case 'gather':
      return gather(context, work, technique.must)
    case 'trigger':
      return triggerIn(context, work, technique.triggers)
    case 'count':
      return countAndCycle(context, work, technique.held, cycleOf(puzzle, school, stage))
    case 'twist':
      return twistInPlace(context, work, technique.trigger, technique.spot)
    case 'case':
      return doCase(context, work, casesOf(puzzle, school, stage, goalBefore))
    case 'optimal':
      return optimal(context, work)
  }
}

const derivedHere = new WeakMap<Stage, { cases?: Case[]; cycle?: string }>()

/** The cases of a stage: shipped with the program, or derived now and kept. */
export function casesOf(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
): readonly Case[] {
  const shipped = derivedStage(puzzle.definition.id, stageKey(school, stage))?.cases
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cases ?? deriveCases(puzzle, stage, goalBefore)
  derivedHere.set(stage, { cases: known })
  return known
}

function cycleOf(puzzle: Puzzle, school: School, stage: Stage): string {
  if (stage.technique.kind === 'count' && stage.technique.cycle) return stage.technique.cycle
  const shipped = derivedStage(puzzle.definition.id, stageKey(school, stage))?.cycle
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cycle ?? deriveCycle(puzzle, stage)
  derivedHere.set(stage, { cycle: known })
  return known
}
