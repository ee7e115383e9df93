/**
 * Known: sequences that are known by heart, each from a hold about the base axis and after a turn of the
 * last layer, until the goal of the stage is met, the fewest and easiest of them.
 */
import type { Technique } from '../../schools/school'
import type { Sequence } from '../../notation/sequence'
import type { State } from '../../state'
import { frameMeeting } from '../goal'
import { selected } from '../selections'
import {
  doing,
  holding,
  layerTurns,
  NoWay,
  preparing,
  proceed,
  type StageContext,
  type Workpiece,
} from '../workpiece'
import { waysOf, type Way } from './ways'

interface Row {
  readonly made: readonly Way[]
  readonly end: Sequence
  readonly cost: number
}

export function doKnown(
  context: StageContext,
  work: Workpiece,
  technique: Extract<Technique, { kind: 'known' }>,
  sequences: readonly string[],
): void {
  const { puzzle, stage, base } = context
  const row = cheapestRow(context, work.held().state, technique, sequences)
  if (!row) throw new NoWay('the sequences of the stage do not lead to its goal')
  const pieces = selected(puzzle, technique.select, base)
  const key = JSON.stringify(technique.select)
  const { must, layer } = stage.goal.find(({ select }) => JSON.stringify(select) === key) ?? {
    must: 'home' as const,
    layer: 'base' as const,
  }
  const aim = { kind: 'known', pieces, must, layer } as const
  if (row.made.length === 0 && row.end.turns.length > 0)
    work.step({ ...aim, sequence: [] }, doing(row.end.turns))
  for (const [i, each] of row.made.entries())
    work.step({ ...aim, sequence: each.sequence.turns.map(({ name }) => name) }, [
      ...holding(each.spin.turns),
      ...preparing(each.fetch.turns),
      ...doing(each.sequence.turns),
      ...(i === row.made.length - 1 ? doing(row.end.turns) : []),
    ])
}

/** Of all rows of sequences that meet the goal, those with the fewest first, the easiest in the hand. */
export function cheapestRow(
  { puzzle, stage, base, hand }: Pick<StageContext, 'puzzle' | 'stage' | 'base' | 'hand'>,
  from: State,
  { fetch, times }: Extract<Technique, { kind: 'known' }>,
  sequences: readonly string[],
): Row | undefined {
  const lastTurns = layerTurns(puzzle, fetch)
  const attempts = waysOf({ puzzle, stage, hand }, fetch, sequences)
  const ending = (state: State) =>
    lastTurns.find(
      ({ table }) => frameMeeting(puzzle, stage.goal, base, state, table) !== undefined,
    )
  let rows: { made: readonly Way[]; state: State; cost: number }[] = [
    { made: [], state: from, cost: 0 },
  ]
  for (let count = 0; count <= times; count++) {
    const found = rows
      .flatMap(({ made, state, cost }): Row[] => {
        const end = ending(state)
        return end ? [{ made, end, cost: cost + end.costs[hand] }] : []
      })
      .sort((a, b) => a.cost - b.cost)
    if (found.length > 0) return found[0]
    if (count === times) return undefined
    const seen = new Set<string>()
    rows = rows.flatMap((row) =>
      attempts.flatMap((attempt) => {
        const { state } = proceed({ state: row.state, frame: 0 }, attempt.whole)
        const key = state.join()
        if (seen.has(key)) return []
        seen.add(key)
        return [{ made: [...row.made, attempt], state, cost: row.cost + attempt.cost }]
      }),
    )
  }
  return undefined
}
