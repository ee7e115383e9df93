/** What the schema library says of a value of another type, in words that are not a program's. */
import { setLocale } from 'yup'

const TYPE_WORDS: ReadonlyMap<string, string> = new Map([
  ['array', 'a list'],
  ['object', 'an object with fields'],
  ['string', 'a text'],
  ['number', 'a number'],
  ['boolean', 'true or false'],
  ['date', 'a date'],
])

setLocale({
  mixed: {
    notType: ({ path, type }: { path: string; type: string }) =>
      `${path || 'it'} must be ${TYPE_WORDS.get(type) ?? `a ${type}`}`,
  },
})
