import { revalidatePath } from 'next/cache'
import { mixed, object, string } from 'yup'
import { puzzleById } from '@/core/catalog'
import { SMALL_MEANINGS, type SmallMeaning } from '@/core/notation/smallLetters'
import { fail, ok } from '@/core/result'
import { answering, jsonOf } from '@/server/answer'
import { checked } from '@/server/outside'
import { keepSmallLetters } from '@/server/profiles'
import { solverId } from '@/server/solver'

const schema = object({
  puzzleId: string().required(),
  means: mixed<SmallMeaning>()
    .oneOf([...SMALL_MEANINGS])
    .required(),
}).noUnknown()

/** Remembers what small letters mean on a puzzle. */
export function PUT(request: Request): Promise<Response> {
  return answering(async () => {
    const body = await jsonOf(request)
    if (!body.ok) return body
    const asked = await checked(schema, body.value)
    if (!asked.ok) return asked
    const { puzzleId, means } = asked.value
    const profileId = await solverId()
    if (!puzzleById(puzzleId).ok)
      return fail('not-found', 'puzzleId names no puzzle.', { field: 'puzzleId' })
    await keepSmallLetters(profileId, puzzleId, means)
    revalidatePath('/', 'layout')
    return ok(true)
  })
}
