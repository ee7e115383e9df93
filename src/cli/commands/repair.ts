/** What a misheard sequence can have been. */
import { readEnds, readKeep } from '../../core/algorithms/keep'
import { distinct, repair, REPAIR_LIMITS } from '../../core/algorithms/repair'
import { CANONICAL } from '../../core/notation/letters'
import { plural } from '../../core/phrases'
import { Failure, told, Usage } from '../failure'
import { stateAfter, puzzleAnd, wholeNumber } from '../asked'
import { type Command, many } from '../options'
import { readAllIn, writeIn } from '../dialects'

export const repairCommand: Command = (rest, values) => {
  const [puzzle, text] = puzzleAnd(rest, 1, values)
  const { keep, from, ends, dialect = CANONICAL } = values
  if (keep === undefined && ends === undefined)
    throw new Usage('repair needs --keep or --ends: what the sequence should do')
  const most = wholeNumber(values.edits, 'edits') ?? REPAIR_LIMITS.edits
  if (most > REPAIR_LIMITS.edits) throw new Usage(`--edits must be ${REPAIR_LIMITS.edits} at most`)
  const wish = {
    keep: keep === undefined ? [] : told(readKeep(puzzle, keep)),
    ...(from === undefined ? {} : { from: stateAfter(puzzle, from) }),
    ...(ends === undefined ? {} : { ends: [told(readEnds(puzzle, ends))] }),
  }
  const meant = readAllIn(puzzle, text, dialect, values)
  if (meant.some((turns) => turns.length > REPAIR_LIMITS.turns))
    throw new Failure(`A sequence of more than ${REPAIR_LIMITS.turns} turns is not repaired.`)
  // Where directions are missing the readings are tried as they stand.
  const edits = meant.length > 1 ? 0 : most
  const readings = meant.flatMap((turns) =>
    distinct(puzzle, repair(puzzle, turns, wish, edits).readings),
  )
  if (readings.length === 0)
    throw new Failure(
      meant.length > 1
        ? `None of the ${meant.length} ways to read this does that.`
        : most === 0
          ? 'As it was heard it does not do that.'
          : `No reading with up to ${plural(most, 'edit')} does that.`,
    )
  const list = readings.map((reading) => ({
    turns: writeIn(reading.turns, dialect),
    edits: reading.edits.map(({ at, kind, was, is }) => ({
      at,
      kind,
      was: was.join(' '),
      is: is.join(' '),
    })),
    ...(readings.length === 1 ? { only: true } : {}),
  }))
  return many(list, ({ turns, edits: made }) =>
    [
      turns,
      ...made.map(
        ({ at, kind, was, is }) =>
          `  turn ${at + 1}, ${kind}: ${was || 'nothing'} is ${is || 'nothing'}`,
      ),
    ].join('\n'),
  )
}
