/** Scrambles by seed. */
import { writeTurns } from '../../core/notation/write'
import { scramble } from '../../core/scramble/scramble'
import { Usage } from '../failure'
import { puzzleAnd, wholeNumber } from '../asked'
import { type Command, many } from '../options'

/** More are asked for one after another. */
const MOST_SCRAMBLES = 100_000

export const scrambleCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  const first = wholeNumber(values.seed, 'seed') ?? Date.now() % 1_000_000_000
  const count = wholeNumber(values.count, 'count') ?? 1
  if (count > MOST_SCRAMBLES) throw new Usage(`--count takes at most ${MOST_SCRAMBLES}`)
  const list = Array.from({ length: count }, (_, i) => {
    const { seed, turns, phases } = scramble(puzzle, first + i)
    return { seed, turns: writeTurns(turns), phases: phases.map((phase) => writeTurns(phase)) }
  })
  return many(list, ({ turns }) => turns)
}
