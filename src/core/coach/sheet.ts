/** What there is to know of a school on a puzzle: its stages, and what of them is known by heart. */
import type { Puzzle } from '../puzzle/compile'
import { stagesOf, variantsOf, type School } from '../schools/school'
import { doSequence, sequence, sequenceOf } from '../notation/sequence'
import { inverseOf, start, writeState } from '../state'
import { plainAim } from './byHeart'
import { sequencesOf } from './technique'

export interface SheetStage {
  readonly id: string
  readonly name: string
  readonly aim: string
  /** What is known by heart, with a state that each leads home from, as `writeState` writes it. */
  readonly byHeart: readonly { readonly turns: string; readonly state: string }[]
}

/** Of the first variant. */
export function sheetOf(puzzle: Puzzle, school: School): SheetStage[] {
  const [variant] = variantsOf(school)
  const stages = stagesOf(school, variant)
  return stages.map((stage, s) => ({
    id: stage.id,
    name: stage.name,
    aim: plainAim(puzzle, stage),
    byHeart: sequencesOf(puzzle, school, stage, stages[s - 1]?.goal ?? []).map((text) => {
      const { turns } = sequence(puzzle, text)
      const back = sequenceOf(puzzle, inverseOf(puzzle, turns))
      return { turns: text, state: writeState(doSequence(back, start(puzzle))) }
    }),
  }))
}
