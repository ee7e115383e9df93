'use server'

import { revalidatePath } from 'next/cache'
import { fail, ok, type Result } from '@/core/result'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { isSolver } from '@/server/named'
import {
  makeSolver,
  newSolverSchema,
  nicknames,
  removeSolver,
  type Solver,
} from '@/server/profiles'
import { rememberSolver } from '@/server/solver'

const gone = fail('not-found', 'This solver is not here any more.')

/** Who can be chosen, by name. */
export async function otherSolvers(): Promise<Pick<Solver, 'id' | 'nickname'>[]> {
  return nicknames()
}

/** From now on this browser asks for this solver. */
export async function chooseSolver(id: unknown): Promise<Result<true>> {
  if (!isId(id) || !(await isSolver(id))) return gone
  await rememberSolver(id)
  revalidatePath('/', 'layout')
  return ok(true)
}

/** Makes a solver with an empty shelf, who is chosen at once; the id is returned. */
export async function addSolver(input: unknown): Promise<Result<string>> {
  const read = await checked(newSolverSchema, input)
  if (!read.ok) return read
  const made = await makeSolver(read.value.nickname)
  if (made.ok) await rememberSolver(made.value)
  revalidatePath('/', 'layout')
  return made
}

/** Removes a solver with shelf, benches, log, settings and files. */
export async function dropSolver(id: unknown): Promise<Result<true>> {
  const done = isId(id) && (await isSolver(id)) ? await removeSolver(id) : gone
  revalidatePath('/', 'layout')
  return done
}
