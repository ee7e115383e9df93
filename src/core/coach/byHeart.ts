/** What a school asks a solver to know by heart on a puzzle: its sequences, each once. */
import type { Puzzle } from '../puzzle/compile'
import { stagesOf, variantsOf, type School, type Stage } from '../schools/school'
import { taught } from '../schools/taught'
import { ownerOf } from './commutatorClaims'
import { sequencesOf } from './technique'

export function byHeart(puzzle: Puzzle, school: School): string[] {
  const [variant] = variantsOf(school)
  const stages = stagesOf(taught(puzzle, school), variant)
  const all = stages.flatMap((stage, s) =>
    sequencesOf(puzzle, school, stage, stages[s - 1]?.goal ?? [], 'learned'),
  )
  return [...new Set(all)]
}

/** The aim of a stage, whichever colour is begun with; its circle or cap by the puzzle's own colours. */
export const plainAim = (puzzle: Puzzle, stage: Pick<Stage, 'aim' | 'technique'>): string => {
  const name = ownerOf(puzzle, puzzle.definition.colours, stage)?.name ?? 'next'
  return stage.aim
    .replaceAll('{base}', 'chosen')
    .replaceAll('{last}', 'opposite')
    .replaceAll(/\{circle\}|\{cap\}/g, () => name)
}
