/** Derives what the stages of a puzzle's schools need: cases with algorithms, and cycles. */
import type { Puzzle } from '../puzzle/compile'
import { SCHOOLS } from '../schools'
import type { DerivedStage } from '../schools/derived'
import { fits } from '../schools/fits'
import { stagesOf, variantsOf, type School } from '../schools/school'
import { deriveCases, deriveCycle, stageKey } from './cases'
import { deriveKnown } from './deriveKnown'

/** By stage key. Takes seconds: for `npm run derive` and its test. */
export function deriveAll(puzzle: Puzzle): Record<string, DerivedStage> {
  return Object.assign(
    {},
    ...SCHOOLS.filter((school) => fits(school, puzzle.definition)).map((s) =>
      deriveSchool(puzzle, s),
    ),
  )
}

function deriveSchool(puzzle: Puzzle, school: School): Record<string, DerivedStage> {
  const derived: Record<string, DerivedStage> = {}
  for (const variant of variantsOf(school)) {
    const stages = stagesOf(school, variant)
    stages.forEach((stage, index) => {
      const key = stageKey(school, stage)
      if (derived[key]) return
      const { technique } = stage
      if (technique.kind === 'case')
        derived[key] = { cases: deriveCases(puzzle, stage, stages[index - 1].goal) }
      if (technique.kind === 'known' && !technique.sequences)
        derived[key] = { cases: deriveKnown(puzzle, stage, stages[index - 1].goal) }
      if (technique.kind === 'count' && technique.cycle === undefined)
        derived[key] = { cycle: deriveCycle(puzzle, stage) }
    })
  }
  return derived
}
