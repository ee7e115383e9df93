'use server'

import { revalidatePath } from 'next/cache'
import { object } from 'yup'
import { trimmed } from '@/core/trimmed'
import { fail, ok, type Result } from '@/core/result'
import { writeState } from '@/core/state'
import { must } from '@/core/result'
import { readState } from '@/core/state'
import { puzzleById } from '@/core/catalog'
import { openSession } from '@/server/benchSessions'
import type { Opened } from '@/server/leftOff'
import { findCopy } from '@/server/copies'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { solverId } from '@/server/solver'
import { findSolve, removeSolve, setRemark } from '@/server/solves'

const gone = fail('not-found', 'This solve is not in the log any more.')

const remarkSchema = object({
  remark: trimmed().max(2000, 'A remark has at most 2000 letters.').defined(),
}).noUnknown()

export async function saveRemark(solveId: string, remark: string): Promise<Result<true>> {
  const read = await checked(remarkSchema, { remark })
  if (!read.ok) return read
  if (!isId(solveId) || !(await setRemark(await solverId(), solveId, read.value.remark)))
    return gone
  revalidatePath('/log')
  return ok(true)
}

export async function discardSolve(solveId: string): Promise<Result<true>> {
  if (!isId(solveId) || !(await removeSolve(await solverId(), solveId))) return gone
  revalidatePath('/log')
  return ok(true)
}

/**
 * Puts the start of a logged solve on the bench again, or says which bench runs.
 *
 * @param instead the bench that may be left off for it
 */
export async function solveAgain(solveId: string, instead?: unknown): Promise<Result<Opened>> {
  const profileId = await solverId()
  const solve = isId(solveId) ? await findSolve(profileId, solveId) : undefined
  if (!solve) return gone
  const copy = solve.copyId ? await findCopy(profileId, solve.copyId) : undefined
  if (!copy) return fail('not-found', 'The puzzle of this solve is not on the shelf any more.')
  const puzzle = must(puzzleById(solve.puzzleId))
  const opened = await openSession(
    profileId,
    {
      copyId: copy.id,
      school: solve.school,
      variant: solve.variant,
      startState: writeState(must(readState(puzzle, solve.startState))),
      scramble: solve.scramble,
      laidBy: solve.scramble ? 'scramble' : 'colours',
    },
    isId(instead) ? instead : undefined,
  )
  if ('bench' in opened) revalidatePath('/', 'layout')
  return ok(opened)
}
