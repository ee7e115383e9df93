/** A state after turns. */
import { isSolved, writeState } from '../../core/state'
import { stateAfter, puzzleAnd } from '../asked'
import { type Command, one } from '../options'

export const applyCommand: Command = (rest, values) => {
  const [puzzle, text] = puzzleAnd(rest, 1, values)
  const state = stateAfter(puzzle, text)
  const result = { state: writeState(state), solved: isSolved(puzzle, state) }
  return one(result, () => `${result.state}${result.solved ? '  solved' : ''}`)
}
