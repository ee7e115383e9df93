/** Case: recognise one of a few cases, take its hold, do its algorithm. */
import { sequence } from '../../notation/sequence'
import { recognise, type Case } from '../cases'
import { doing, holding, preparing, type StageContext, type Workpiece } from '../workpiece'

export function doCase(
  { puzzle, stage, base, hand }: StageContext,
  work: Workpiece,
  cases: readonly Case[],
): void {
  if (stage.technique.kind !== 'case') throw new Error('the stage has no cases')
  // No algorithm at all is a case too: only a turn of the last layer is missing.
  const algorithms = ['', ...cases.map(({ turns }) => turns)]
  const found = recognise(puzzle, stage, base, work.held().state, algorithms, hand)
  if (!found) throw new Error('a state of this stage belongs to no case')
  const { hold, before, end } = found
  const algorithm = sequence(puzzle, algorithms[found.index])
  if (found.index === 0) {
    work.step({ kind: 'align' }, [...holding(hold), ...doing(before), ...doing(end)])
    return
  }
  work.step(
    {
      kind: 'case',
      caseIndex: found.index - 1,
      caseCount: cases.length,
      algorithms: cases.map(({ turns }) => turns),
      reading: stage.technique.reading,
      algorithm: algorithm.turns.map(({ name }) => name),
    },
    [...holding(hold), ...preparing(before), ...doing(algorithm.turns)],
  )
  if (end.length > 0) work.step({ kind: 'align' }, doing(end))
}
