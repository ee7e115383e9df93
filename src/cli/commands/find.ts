/** Shorter sequences with an effect. */
import { stateMade } from '../../core/analysis/effect'
import { MOST_TURNS } from '../../core/algorithms/find'
import { waysFor, type Way } from '../../core/algorithms/ways'
import { completed } from '../../core/algorithms/wish'
import { readWishFile } from '../../core/algorithms/wishFile'
import { readTurns } from '../../core/notation/read'
import { writeTurns } from '../../core/notation/write'
import type { Puzzle } from '../../core/puzzle/compile'
import { plural } from '../../core/phrases'
import { Failure, told, Usage } from '../failure'
import { puzzleAnd, readJsonFile, wholeNumber } from '../asked'
import { type Command, many } from '../options'

const shownPieces = ({ pieces }: Puzzle): number[] =>
  pieces.flatMap(({ faces }, p) => (faces.length > 0 ? [p] : []))

export const findCommand: Command = async (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  if ((values.same === undefined) === (values.effect === undefined))
    throw new Usage('find needs either --same "<algorithm>" or --effect FILE')
  const asked = values.same === undefined ? undefined : told(readTurns(puzzle, values.same))
  const wanted = asked
    ? { position: told(stateMade(puzzle, asked)), pieces: shownPieces(puzzle) }
    : told(completed(puzzle, told(readWishFile(puzzle, readJsonFile(values.effect ?? '')))))
  const until = performance.now() + 1000 * (wholeNumber(values.seconds, 'seconds') ?? 60)
  const most = wholeNumber(values.most, 'most') ?? Math.min(asked?.length ?? 14, MOST_TURNS)
  let none = 0
  let first: Way | undefined
  const found = told(
    await waysFor(
      puzzle,
      { driven: [], isSettled: true, ...wanted },
      {
        most,
        scheme: puzzle.definition.colours,
        ...(values.layers === undefined ? {} : { layers: values.layers.trim().split(/[ ,]+/) }),
        rest: () => Promise.resolve(performance.now() > until),
        onNone: (turns) => (none = turns),
        onFirst: (way) => (first = way),
      },
    ),
  )
  // What is longer than what was given is of no use.
  const isOfUse = first && (!asked || first.turnCount < asked.length)
  const ways = found.length > 0 || !first || !isOfUse ? found : [first]
  if (ways.length === 0)
    throw new Failure(
      none >= most
        ? `No row of up to ${plural(most, 'turn')} does that.`
        : `No row of up to ${plural(none, 'turn')} does that; then the time was over.`,
    )
  const list = ways.map(({ turns, turnCount, cost, isShortest }) => ({
    turns: writeTurns(turns),
    turnCount,
    handCost: Math.round(cost * 10) / 10,
    shortest: isShortest,
  }))
  return many(list, ({ turns, turnCount }) => `${turns}  (${turnCount} turns)`)
}
