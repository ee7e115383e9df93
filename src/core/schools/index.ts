/** The shipped schools. A new one is a file beside the others and a line here. */
import { shippedPuzzle } from '../catalog'
import { fail, ok, type Result } from '../result'
import { faceFirst } from './face-first'
import { layerByLayer } from './layer-by-layer'
import { oneTrigger } from './one-trigger'
import { pieceByPiece, UNIVERSAL_ID, UNIVERSAL_NAME } from './piece-by-piece'
import type { School } from './school'
import { shortest } from './shortest'

export const SCHOOLS: readonly School[] = [oneTrigger, layerByLayer, faceFirst, shortest]

/** The schools of a shipped puzzle: those written for it, and the universal one where it serves. */
export function schoolsFor(puzzleId: string): School[] {
  const puzzle = shippedPuzzle(puzzleId)
  const universal = puzzle.ok ? pieceByPiece(puzzle.value) : undefined
  const own = SCHOOLS.filter(({ puzzles }) => puzzles.includes(puzzleId))
  return universal ? [...own, universal] : own
}

/** What a school is called, for lists over many puzzles. */
export const schoolName = (id: string): string | undefined =>
  id === UNIVERSAL_ID ? UNIVERSAL_NAME : SCHOOLS.find((school) => school.id === id)?.name

export function schoolNamed(puzzleId: string, schoolId: string): Result<School> {
  const found = schoolsFor(puzzleId).find(({ id }) => id === schoolId)
  if (found) return ok(found)
  const known = schoolsFor(puzzleId).map(({ id }) => id)
  const offer = known.length > 0 ? `It has ${known.join(', ')}.` : 'It has no school yet.'
  return fail('unknown-school', `No school for this puzzle has the id ${schoolId}. ${offer}`)
}
