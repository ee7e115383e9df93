/** The shipped schools. A new one is a file beside the others and a line here. */
import { fail, ok, type Result } from '../result'
import { faceFirst } from './face-first'
import { layerByLayer } from './layer-by-layer'
import { oneTrigger } from './one-trigger'
import type { School } from './school'
import { shortest } from './shortest'

export const SCHOOLS: readonly School[] = [oneTrigger, layerByLayer, faceFirst, shortest]

export const schoolsFor = (puzzleId: string): School[] =>
  SCHOOLS.filter(({ puzzles }) => puzzles.includes(puzzleId))

export function schoolNamed(puzzleId: string, schoolId: string): Result<School> {
  const found = schoolsFor(puzzleId).find(({ id }) => id === schoolId)
  if (found) return ok(found)
  const known = schoolsFor(puzzleId).map(({ id }) => id)
  const offer = known.length > 0 ? `It has ${known.join(', ')}.` : 'It has no school yet.'
  return fail('unknown-school', `No school for this puzzle has the id ${schoolId}. ${offer}`)
}
