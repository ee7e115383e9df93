/** Turns from one dialect to another. */
import { CANONICAL } from '../../core/notation/letters'
import { Usage } from '../failure'
import { expectCount, loadPuzzle } from '../asked'
import { type Command, many } from '../options'
import { readAllIn, writeIn } from '../dialects'

export const readCommand: Command = (rest, values) => {
  expectCount(rest, 1)
  if (values.dialect === undefined) throw new Usage('read needs --dialect D')
  const puzzle = loadPuzzle(values.puzzle ?? 'cube-3')
  const list = readAllIn(puzzle, rest[0], values.dialect, values).map((turns) => ({
    turns: writeIn(turns, values.write ?? CANONICAL),
  }))
  return many(list, ({ turns }) => turns)
}
