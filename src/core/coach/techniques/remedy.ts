/**
 * Remedy: an ending that turns of the smaller box can never mend. One sequence of inner layers mends it, from a hold
 * about the base axis; nothing that is done is lost.
 */
import type { Vector } from '../../rotation'
import type { Technique } from '../../schools/school'
import { doing, holding, preparing, type StageContext, type Workpiece } from '../workpiece'
import { cheapestRow } from './known'
import { wholesOf } from './joinJudge'
import { doRest } from './universally'

export function doRemedy(
  context: StageContext,
  work: Workpiece,
  technique: Extract<Technique, { kind: 'remedy' }>,
): void {
  const { puzzle, base } = context
  const { select, sequences, fetch } = technique
  const from = work.held().state
  const row = cheapestRow(context, from, { kind: 'known', select, fetch, times: 1 }, sequences)
  const [way] = row?.made ?? []
  if (!row || !way) return doRest(context, work, 'noWayOn')
  const { wholes } = wholesOf(puzzle, select, base)
  work.step(
    {
      kind: 'remedy',
      size: select.as as Vector,
      of: wholes,
      sequence: way.sequence.turns.map(({ name }) => name),
    },
    [
      ...holding(way.spin.turns),
      ...preparing(way.fetch.turns),
      ...doing(way.sequence.turns),
      ...doing(row.end.turns),
    ],
  )
}
