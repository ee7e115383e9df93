/** Whether a school file leads home. */
import { whyNotServed } from '../../core/universal/solve'
import { byHeart } from '../../core/coach/byHeart'
import { prove } from '../../core/coach/prove'
import { readSchool } from '../../core/schools/readSchool'
import { told, Usage } from '../failure'
import { expectCount, loadPuzzle, readJsonFile, wholeNumber } from '../asked'
import { type Command, one } from '../options'

/** States that a school file is tried from, if no other number is asked for. */
const PROOF_STATES = 200

export const schoolCommand: Command = (rest, values) => {
  expectCount(rest, 1)
  if (values.puzzle === undefined) throw new Usage('school needs --puzzle P')
  const puzzle = loadPuzzle(values.puzzle)
  const school = told(readSchool(readJsonFile(rest[0])))
  whyNotServed(puzzle)
  const count = wholeNumber(values.states, 'states') ?? PROOF_STATES
  if (count === 0) throw new Usage('--states must be 1 at least')
  const proof = told(prove(puzzle, school, count))
  const known = byHeart(puzzle, school).length
  return one(
    { puzzle: puzzle.definition.id, school: school.id, ...proof, algorithms: known },
    () =>
      `${school.name} leads home from all of ${proof.states} states: ${proof.meanTurns} turns on average, ${proof.mostTurns} at most, ${known} sequences by heart.`,
  )
}
