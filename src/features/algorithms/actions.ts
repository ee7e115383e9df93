'use server'

import { revalidatePath } from 'next/cache'
import { fail, ok, type Result } from '@/core/result'
import {
  algorithmSchema,
  forgetAlgorithm,
  keepAlgorithm,
  renameAlgorithm,
} from '@/server/algorithms'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { solverId } from '@/server/solver'

const GONE = fail('not-found', 'This sequence is not kept any more.')

const idOf = (puzzleId: unknown): string =>
  typeof puzzleId === 'string' ? puzzleId.slice(0, 80) : ''

/** Keeps a sequence for a puzzle; its id is returned. */
export async function keepSequence(puzzleId: unknown, input: unknown): Promise<Result<string>> {
  const read = await checked(algorithmSchema, input)
  if (!read.ok) return read
  const kept = await keepAlgorithm(await solverId(), idOf(puzzleId), read.value)
  if (kept.ok) revalidatePath('/algorithms', 'layout')
  return kept
}

export async function renameSequence(id: unknown, input: unknown): Promise<Result<true>> {
  const read = await checked(algorithmSchema.pick(['name', 'remark']), input)
  if (!read.ok) return read
  if (!isId(id) || !(await renameAlgorithm(await solverId(), id, read.value))) return GONE
  revalidatePath('/algorithms', 'layout')
  return ok(true)
}

export async function forgetSequence(id: unknown): Promise<Result<true>> {
  if (!isId(id) || !(await forgetAlgorithm(await solverId(), id))) return GONE
  revalidatePath('/algorithms', 'layout')
  return ok(true)
}
