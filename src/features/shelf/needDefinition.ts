/** Puzzles of the solver's own are many and large: the page gets one when it is first asked for. */
import { definitionById, learnDefinitions } from '@/core/catalog'
import { splitId } from '@/core/catalog/setting'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { readDefinition } from '@/core/puzzle/readDefinition'
import { fail, ok, type Result } from '@/core/result'

const AWAY = fail('away', 'The puzzle file did not come. Try again in a moment.')

/** The definition of a puzzle by its id, afterwards known to the page. */
export async function needDefinition(puzzleId: string): Promise<Result<PuzzleDefinition>> {
  const known = definitionById(puzzleId)
  if (known) return ok(known)
  const { file } = splitId(puzzleId)
  try {
    const answer = await fetch(`/api/puzzles/${file}`)
    if (!answer.ok) return AWAY
    const read = readDefinition(await answer.json())
    if (!read.ok) return read
    learnDefinitions([{ ...read.value, id: file }])
  } catch {
    return AWAY
  }
  const definition = definitionById(puzzleId)
  return definition ? ok(definition) : fail('unknown-puzzle', `No puzzle has the id ${puzzleId}.`)
}
