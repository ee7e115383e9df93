'use server'

import { revalidatePath } from 'next/cache'
import { fail, ok, type Result } from '@/core/result'
import { forgetOwnSchool, keepSchool } from '@/server/ownSchools'
import { solverId } from '@/server/solver'

/** Longer than any school file that is read. */
const MOST_CHARACTERS = 200_000

/** Keeps a school file for a puzzle on which it was proven. */
export async function keepSchoolFile(puzzleId: unknown, text: unknown): Promise<Result<string>> {
  if (typeof puzzleId !== 'string' || typeof text !== 'string' || text.length > MOST_CHARACTERS)
    return fail('bad-input', 'text must be a school file.', { field: 'text' })
  let input: unknown
  try {
    input = JSON.parse(text)
  } catch (error) {
    return fail('bad-school', `This is no JSON: ${(error as Error).message}.`, { field: 'text' })
  }
  const kept = await keepSchool(await solverId(), puzzleId.slice(0, 80), input)
  if (kept.ok) revalidatePath('/', 'layout')
  return kept
}

/** Forgets one that no bench and no logged solve follows. */
export async function forgetSchoolFile(puzzleId: unknown, id: unknown): Promise<Result<true>> {
  if (typeof puzzleId !== 'string' || typeof id !== 'string')
    return fail('bad-input', 'id must name a school.', { field: 'id' })
  if (!(await forgetOwnSchool(await solverId(), puzzleId.slice(0, 80), id.slice(0, 40))))
    return fail('in-use', 'A bench or a logged solve follows this school, so it stays known.')
  revalidatePath('/', 'layout')
  return ok(true)
}
