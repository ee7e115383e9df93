/** A puzzle so that it can be rebuilt. */
import { describe } from '../../core/analysis/describe'
import { puzzleAnd } from '../asked'
import { type Command, one } from '../options'

export const describeCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  const description = describe(puzzle)
  return one(description, () =>
    [
      `${description.id}: ${description.name}`,
      ...description.kinds.map(({ name, count }) => `  ${count} x ${name}`),
      `  turns: ${puzzle.turns.map((turn) => turn.name).join(' ')}`,
    ].join('\n'),
  )
}
