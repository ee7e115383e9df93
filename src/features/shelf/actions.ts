'use server'

import { revalidatePath } from 'next/cache'
import { puzzleById } from '@/core/catalog'
import type { Scheme } from '@/core/puzzle/colours'
import type { PuzzleDefinition } from '@/core/puzzle/definition'
import { readDefinition } from '@/core/puzzle/readDefinition'
import { fail, ok, type Result } from '@/core/result'
import { addCare, removeCare } from '@/server/care'
import { removeSession } from '@/server/benchSessions'
import { addCopy, removeCopy, updateCopy } from '@/server/copies'
import { handOver } from '@/server/handOver'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { addOwnPuzzle, forgetOwnPuzzle, ownId } from '@/server/ownPuzzles'
import { transaction } from '@/server/pool'
import { nicknames, type Solver } from '@/server/profiles'
import { solverId } from '@/server/solver'
import { tablesOf } from '@/server/tables'
import { careSchema } from '@/server/careSchema'
import { copySchema } from '@/server/copySchema'

/** Adds a copy, or changes one if an id is given. */
export async function saveCopy(input: unknown, id?: string): Promise<Result<string>> {
  const copy = await checked(copySchema, input)
  if (!copy.ok) return copy
  const profileId = await solverId()
  const puzzle = puzzleById(copy.value.puzzleId)
  if (!puzzle.ok) return fail('bad-input', puzzle.problem.sentence, { field: 'puzzleId' })
  if (!hasColours(copy.value.scheme, puzzle.value.definition)) return otherColours
  if (id !== undefined) {
    if (!isId(id) || !(await updateCopy(profileId, id, copy.value))) return gone
    revalidatePath('/shelf')
    return ok(id)
  }
  const added = await addCopy(profileId, copy.value)
  revalidatePath('/shelf')
  return ok(added)
}

/** Adds a copy of a puzzle that a file describes; the puzzle is stored with it, or neither is. */
export async function putFileOnShelf(input: unknown, file: unknown): Promise<Result<string>> {
  const read = readDefinition(file)
  if (!read.ok) return read
  const definition = read.value
  const copy = await checked(copySchema, { ...Object(input), puzzleId: ownId(definition) })
  if (!copy.ok) return copy
  if (!hasColours(copy.value.scheme, definition)) return otherColours
  const profileId = await solverId()
  const added = await transaction(profileId, async (client) => {
    const stored = await addOwnPuzzle(profileId, definition, client)
    return stored.ok ? ok(await addCopy(profileId, copy.value, client)) : stored
  })
  if (!added.ok) return added
  // Until it is taken up, somebody may have worked them out.
  await tablesOf(profileId, ownId(definition))
  revalidatePath('/shelf')
  return added
}

/** Takes a puzzle file's puzzle out of the choice of puzzles. */
export async function forgetPuzzle(puzzleId: string): Promise<Result<true>> {
  if (
    typeof puzzleId !== 'string' ||
    !(await forgetOwnPuzzle(await solverId(), puzzleId.slice(0, 40)))
  )
    return fail('in-use', 'This puzzle stands on the shelf or in the log, so it stays known.')
  revalidatePath('/shelf')
  return ok(true)
}

const hasColours = (scheme: Scheme, { colours }: PuzzleDefinition) =>
  scheme.map(({ id }) => id).join() === colours.map(({ id }) => id).join()

const otherColours = fail('bad-input', 'The colours do not belong to this puzzle.', {
  field: 'scheme',
})

export async function discardCopy(id: string): Promise<Result<string>> {
  if (!isId(id) || !(await removeCopy(await solverId(), id))) return gone
  revalidatePath('/shelf')
  return ok(id)
}

/** Removes a bench and what happened on it; solves stay in the log. */
export async function discardBench(id: string): Promise<Result<string>> {
  if (!isId(id) || !(await removeSession(await solverId(), id)))
    return fail('not-found', 'This bench is not there any more.')
  revalidatePath('/', 'layout')
  return ok(id)
}

export async function addCareEntry(copyId: string, input: unknown): Promise<Result<true>> {
  const entry = await checked(careSchema, input)
  if (!entry.ok) return entry
  if (!isId(copyId) || !(await addCare(await solverId(), copyId, entry.value))) return gone
  revalidatePath('/shelf')
  return ok(true)
}

export async function removeCareEntry(id: string): Promise<Result<true>> {
  if (!isId(id) || !(await removeCare(await solverId(), id)))
    return fail('not-found', 'This entry is not there any more.')
  revalidatePath('/shelf')
  return ok(true)
}

const gone = fail('not-found', 'This puzzle is not on the shelf any more.')

/** The other solvers on this machine, by name. */
export async function takers(): Promise<Pick<Solver, 'id' | 'nickname'>[]> {
  const own = await solverId()
  return (await nicknames()).filter(({ id }) => id !== own)
}

/** Hands a copy over with its benches; who has it now is returned. */
export async function handCopyOver(
  copyId: unknown,
  to: unknown,
): Promise<Result<{ readonly nickname: string }>> {
  if (!isId(to)) return fail('not-found', 'This solver is not here any more.', { field: 'to' })
  if (!isId(copyId)) return gone
  const done = await handOver(await solverId(), copyId, to)
  revalidatePath('/', 'layout')
  return done
}
