/** What a position is: a verdict, and what mends it. */
import type { Puzzle } from '../../core/puzzle/compile'
import { diagnose } from '../../core/stuck/diagnose'
import { verdictWords } from '../../core/stuck/sayVerdict'
import { remediesFor } from '../../core/stuck/remedies'
import { readStateFile } from '../../core/stuck/stateFile'
import { slotName } from '../../core/analysis/anatomy'
import { told, Usage } from '../failure'
import { puzzleAnd, readJsonFile } from '../asked'
import { type Command, one } from '../options'

export const checkCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  if (values.state === undefined) throw new Usage('check needs --state FILE')
  const judged = check(puzzle, readJsonFile(values.state))
  return one(judged, () =>
    [
      `${judged.verdict}: ${judged.sentences.join(' ')}`,
      ...judged.remedies.map(({ name, turnCount }) => `${name}: ${turnCount} turns`),
    ].join('\n'),
  )
}

function check(puzzle: Puzzle, file: unknown) {
  const read = told(readStateFile(puzzle, file))
  if (read.kind === 'misread')
    return {
      verdict: 'misread',
      sentences: read.sentences,
      claims: [],
      pieces: [],
      account: [],
      remedies: [],
    }
  const { colours } = puzzle.definition
  const diagnosis = diagnose(puzzle, read.state)
  return {
    verdict: diagnosis.verdict,
    sentences: verdictWords(puzzle, colours, diagnosis),
    claims: diagnosis.said,
    pieces: diagnosis.slots.map((slot) => slotName(puzzle, slot)),
    account: diagnosis.account.map(({ places, ...sums }) => ({
      places: places.map((place) => puzzle.pieces[place].id),
      ...sums,
    })),
    remedies: remediesFor(puzzle, diagnosis).map(({ kind, name, turns, turnCount }) => ({
      kind,
      name,
      turns: turns.join(' '),
      turnCount,
    })),
  }
}
