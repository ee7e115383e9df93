/** Another school taken up on an open bench. */
import { object, string, type Schema } from 'yup'
import { fail, ok, type Result } from '../core/result'
import { schoolNamed } from '../core/schools'
import { fullVariant, type Variant } from '../core/schools/school'
import { changeSchool, findSession } from './benchSessions'
import { findCopy } from './copies'
import { isId } from './id'
import { solverId } from './solver'

interface Choice {
  readonly school: string
  readonly variant: Variant
}

export const choiceSchema = object({
  school: string().max(40).required(),
  variant: object().default({}),
})
  .required()
  .noUnknown() as unknown as Schema<Choice>

export async function chooseSchool(
  sessionId: string,
  { school: schoolId, variant }: Choice,
): Promise<Result<true>> {
  const gone = fail('not-found', 'This bench is not open any more.')
  if (!isId(sessionId)) return gone
  const profileId = await solverId()
  const session = await findSession(profileId, sessionId)
  const copy = session && (await findCopy(profileId, session.copyId))
  if (!copy) return gone
  const school = schoolNamed(copy.puzzleId, schoolId)
  if (!school.ok) return school
  const full = fullVariant(school.value, variant)
  return (await changeSchool(profileId, sessionId, schoolId, full)) ? ok(true) : gone
}
