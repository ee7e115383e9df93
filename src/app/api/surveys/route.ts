import { object, string } from 'yup'
import { puzzleById } from '@/core/catalog'
import { fail, ok } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import { answering, jsonOf } from '@/server/answer'
import { learnOwnSchools } from '@/server/ownSchools'
import { checked } from '@/server/outside'
import { solverId } from '@/server/solver'
import { beginSurvey } from '@/server/surveys'

const schema = object({
  puzzleId: string().required(),
  schoolId: string().required(),
}).noUnknown()

/** Gives the survey of a school to the queue; the id by which to ask for it is returned. */
export function POST(request: Request): Promise<Response> {
  return answering(async () => {
    const body = await jsonOf(request)
    if (!body.ok) return body
    const asked = await checked(schema, body.value)
    if (!asked.ok) return asked
    const { puzzleId, schoolId } = asked.value
    const profileId = await solverId()
    if (!puzzleById(puzzleId).ok)
      return fail('not-found', 'puzzleId names no puzzle.', { field: 'puzzleId' })
    await learnOwnSchools(profileId, [{ puzzleId, id: schoolId }])
    const school = schoolNamed(puzzleId, schoolId)
    if (!school.ok)
      return fail('not-found', 'schoolId names no school of this puzzle.', { field: 'schoolId' })
    return ok(await beginSurvey(profileId, puzzleId, schoolId))
  })
}
