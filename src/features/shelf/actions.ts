'use server'

import { revalidatePath } from 'next/cache'
import { shippedPuzzle } from '@/core/catalog'
import { fail, ok, type Result } from '@/core/result'
import { addCare, removeCare } from '@/server/care'
import { addCopy, removeCopy, updateCopy } from '@/server/copies'
import { checked, isId } from '@/server/outside'
import { defaultProfile } from '@/server/profiles'
import { careSchema } from './careSchema'
import { copySchema } from './copySchema'

/** Adds a copy, or changes one if an id is given. */
export async function saveCopy(input: unknown, id?: string): Promise<Result<string>> {
  const copy = await checked(copySchema, input)
  if (!copy.ok) return copy
  const puzzle = shippedPuzzle(copy.value.puzzleId)
  if (!puzzle.ok) return fail('bad-input', puzzle.problem.sentence, { field: 'puzzleId' })
  const ids = puzzle.value.definition.colours.map((colour) => colour.id).join()
  if (copy.value.scheme.map((colour) => colour.id).join() !== ids)
    return fail('bad-input', 'The colours do not belong to this puzzle.', { field: 'scheme' })
  const profileId = await defaultProfile()
  if (id !== undefined) {
    if (!isId(id) || !(await updateCopy(profileId, id, copy.value))) return gone
    revalidatePath('/shelf')
    return ok(id)
  }
  const added = await addCopy(profileId, copy.value)
  revalidatePath('/shelf')
  return ok(added)
}

export async function discardCopy(id: string): Promise<Result<string>> {
  if (!isId(id) || !(await removeCopy(await defaultProfile(), id))) return gone
  revalidatePath('/shelf')
  return ok(id)
}

export async function addCareEntry(copyId: string, input: unknown): Promise<Result<true>> {
  const entry = await checked(careSchema, input)
  if (!entry.ok) return entry
  if (!isId(copyId) || !(await addCare(await defaultProfile(), copyId, entry.value))) return gone
  revalidatePath('/shelf')
  return ok(true)
}

export async function removeCareEntry(id: string): Promise<Result<true>> {
  if (!isId(id) || !(await removeCare(await defaultProfile(), id)))
    return fail('not-found', 'This entry is not there any more.')
  revalidatePath('/shelf')
  return ok(true)
}

const gone = fail('not-found', 'This puzzle is not on the shelf any more.')
