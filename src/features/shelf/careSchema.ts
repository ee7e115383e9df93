/** What a care entry must say. */
import { mixed, object, string } from 'yup'
import { CARE_KINDS, type CareKind } from '@/server/care'

const isDay = (text: string | undefined) => {
  const time = Date.parse(`${text}T00:00:00Z`)
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text
}

export const careSchema = object({
  happenedOn: string()
    .required('Say on which day.')
    .test('day', 'A day is written yyyy-mm-dd.', isDay)
    .test('past', 'The day lies in the future.', (text) => {
      // A day's grace, because the solver's clock may be ahead of the server's.
      return !isDay(text) || Date.parse(`${text}T00:00:00Z`) < Date.now() + 86_400_000
    }),
  kind: mixed<CareKind>()
    .oneOf([...CARE_KINDS], 'kind must be one of ${values}.')
    .required('Say what it was.'),
  note: string().trim().max(500, 'A note has at most 500 letters.').default(''),
}).noUnknown()
