/** What a care entry must say. */
import { mixed, object, string } from 'yup'
import { trimmed } from '../core/trimmed'
import { CARE_KINDS, type CareKind } from './care'

const FIRST_DAY = '1900-01-01'

const isDay = (text: string | undefined) => {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text ?? '')) return false
  const time = Date.parse(`${text}T00:00:00Z`)
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text
}

export const careSchema = object({
  happenedOn: string()
    .required('Say on which day.')
    .test('day', 'A day is written yyyy-mm-dd.', isDay)
    .test('first', 'The day lies too far back.', (text) => !isDay(text) || `${text}` >= FIRST_DAY)
    .test('past', 'The day lies in the future.', (text) => {
      // A day's grace, because the solver's clock may be ahead of the server's.
      return !isDay(text) || Date.parse(`${text}T00:00:00Z`) < Date.now() + 86_400_000
    }),
  kind: mixed<CareKind>()
    .oneOf([...CARE_KINDS], 'kind must be one of ${values}.')
    .required('Say what it was.'),
  note: trimmed().max(500, 'A note has at most 500 letters.').default(''),
}).noUnknown()
