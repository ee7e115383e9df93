'use server'

import { revalidatePath } from 'next/cache'
import { whyNotByColours } from '@/core/copy/colours'
import { readTurns } from '@/core/notation/read'
import type { Puzzle } from '@/core/puzzle/compile'
import { fail, ok, type Result } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { fullVariant } from '@/core/schools/school'
import { start, turnAll, writeState } from '@/core/state'
import { openSession } from '@/server/benchSessions'
import type { Opened } from '@/server/leftOff'
import { findCopy, updateCopy, type Copy } from '@/server/copies'
import { puzzleOf } from '@/server/damage'
import { judged } from '@/server/judging'
import { isId } from '@/server/id'
import { checked } from '@/server/outside'
import { solverId } from '@/server/solver'
import {
  entrySchema,
  type CopiedEntry,
  type PieceEntry,
  type ScrambledEntry,
} from './sessionSchema'

interface LaidOut {
  startState: string
  scramble: string
}

/** Judges an entry once more on the engine and opens a bench with it, or says which one runs. */
export async function putOnBench(input: unknown): Promise<Result<Opened>> {
  const entry = await checked(entrySchema, input)
  if (!entry.ok) return entry
  const profileId = await solverId()
  const { copyId, school: schoolId, variant, laidBy, instead } = entry.value
  const copy = isId(copyId) ? await findCopy(profileId, copyId) : undefined
  if (!copy)
    return fail('not-found', 'This puzzle is not on the shelf any more.', { field: 'copyId' })
  const puzzle = puzzleOf(copy)
  if (!puzzle.ok) return puzzle
  const school = schoolId ? schoolNamed(copy.puzzleId, schoolId) : undefined
  if (school && !school.ok) return school
  const laid =
    laidBy === 'scramble'
      ? scrambledBy(puzzle.value, entry.value as ScrambledEntry)
      : laidBy === 'colours'
        ? await copiedFrom(profileId, puzzle.value, copy, entry.value as CopiedEntry)
        : await pieceByPiece(copy, entry.value as PieceEntry)
  if (!laid.ok) return laid
  const opened = await openSession(
    profileId,
    {
      ...laid.value,
      copyId,
      laidBy,
      seed: (entry.value as ScrambledEntry).seed,
      school: school?.value.id,
      variant: school ? fullVariant(school.value, variant) : {},
    },
    instead,
  )
  if ('bench' in opened) revalidatePath('/', 'layout')
  return ok(opened)
}

function scrambledBy(puzzle: Puzzle, { scramble }: ScrambledEntry): Result<LaidOut> {
  const turns = readTurns(puzzle, scramble)
  if (!turns.ok) return { ok: false, problem: { ...turns.problem, field: 'scramble' } }
  const state = turnAll(puzzle, start(puzzle), turns.value)
  if (!state.ok) return state
  return ok({ startState: writeState(state.value), scramble })
}

async function pieceByPiece(copy: Copy, { state }: PieceEntry): Promise<Result<LaidOut>> {
  const found = await judged(copy.puzzleId, { by: 'pieces', state })
  return found.ok ? ok({ startState: found.value.state, scramble: '' }) : found
}

/** The copy keeps the colours as they were found, if they lie differently from what it had. */
async function copiedFrom(
  profileId: string,
  puzzle: Puzzle,
  copy: Copy,
  { marked }: CopiedEntry,
): Promise<Result<LaidOut>> {
  const whyNot = whyNotByColours(puzzle)
  if (whyNot) return fail('bad-input', whyNot, { field: 'laidBy' })
  const known = new Set(copy.scheme.map(({ id }) => id))
  if (Object.values(marked).some((id) => typeof id !== 'string' || !known.has(id)))
    return fail('bad-input', 'A sticker has a colour that this copy does not have.', {
      field: 'marked',
    })
  const found = await judged(copy.puzzleId, { by: 'colours', scheme: copy.scheme, marked })
  if (!found.ok) return found
  const { state, scheme } = found.value
  if (scheme) await updateCopy(profileId, copy.id, { ...copy, scheme })
  return ok({ startState: state, scramble: '' })
}
