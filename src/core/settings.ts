/** What a solver can set, with the defaults and the schema that every stored value meets. */
import { boolean, mixed, number, object, string } from 'yup'
import { trimmed } from './trimmed'
import { ACTS, DEFAULT_KEYS, keyProblem, type Keys } from './keys'
import { DIALECT_IDS, type DialectId } from './notation/dialect'
import { SMALL_MEANINGS, smallOf, type SmallMeaning } from './notation/smallLetters'
import type { Hand } from './notation/handCost'
import { DEFAULT_VOCABULARY, readVocabulary } from './notation/spoken/vocabulary'

/** How cards speak: in full until a case has been met twice, always in full, or always in few words. */
export const CARD_VOICES = ['learning', 'full', 'brief'] as const
export type CardVoice = (typeof CARD_VOICES)[number]

/** `system`: as the device has it. */
export type Theme = 'dusk' | 'daylight' | 'system'

export interface Settings {
  readonly nickname: string
  readonly readDialect: DialectId
  readonly writeDialect: DialectId
  /** What small letters mean on a puzzle, by its id, where the solver has once said so. */
  readonly smallLetters: Readonly<Record<string, SmallMeaning>>
  /** What words without directions can mean, a word a line. */
  readonly vocabulary: string
  readonly theme: Theme
  /** Marks on every sticker. */
  readonly marks: boolean
  /** How long a turn takes on screen. */
  readonly turnMs: number
  readonly hand: Hand
  readonly cards: CardVoice
  /** The key of each act on the bench. */
  readonly keys: Keys
}

export const DEFAULT_SETTINGS: Settings = {
  nickname: 'Me',
  readDialect: 'prime',
  writeDialect: 'prime',
  smallLetters: {},
  vocabulary: DEFAULT_VOCABULARY,
  theme: 'dusk',
  marks: false,
  turnMs: 180,
  hand: 'right',
  cards: 'learning',
  keys: DEFAULT_KEYS,
}

const keysSchema = mixed<Keys>()
  .required()
  .test('keys', (value, context) => {
    const keys = Object(value) as Keys
    for (const { id } of ACTS) {
      const key: unknown = keys[id]
      const problem = typeof key === 'string' ? keyProblem(keys, id, key) : `keys.${id} is missing.`
      if (problem) return context.createError({ message: problem })
    }
    return true
  })

/** Puzzles of which it is remembered. */
export const MOST_SMALL_LETTERS = 300

const smallLettersSchema = mixed<Settings['smallLetters']>()
  .required()
  .test('small letters', (value, context) => {
    const all = Object.entries(Object(value) as object)
    const wrong = all.find(([, means]) => !SMALL_MEANINGS.includes(means as SmallMeaning))
    if (wrong)
      return context.createError({ message: `smallLetters.${wrong[0]} must be inner or wide.` })
    return (
      all.length <= MOST_SMALL_LETTERS ||
      context.createError({
        message: `smallLetters names more than ${MOST_SMALL_LETTERS} puzzles.`,
      })
    )
  })

/** Settings as they are for one puzzle, on which small letters may mean something else. */
export function settingsFor(settings: Settings, puzzleId: string): Settings {
  const meaning = settings.smallLetters[puzzleId] as SmallMeaning | undefined
  const own = (id: DialectId): DialectId =>
    meaning !== undefined && smallOf(id) ? `small-${meaning}` : id
  return {
    ...settings,
    readDialect: own(settings.readDialect),
    writeDialect: own(settings.writeDialect),
  }
}

/** What a solver is called, here and in the log. */
export const nicknameSchema = () =>
  trimmed().max(80, 'A nickname has at most 80 letters.').required('A nickname is missing.')

export const settingsSchema = object({
  nickname: nicknameSchema(),
  readDialect: mixed<DialectId>()
    .oneOf([...DIALECT_IDS])
    .required(),
  writeDialect: mixed<DialectId>()
    .oneOf([...DIALECT_IDS])
    .required(),
  smallLetters: smallLettersSchema,
  vocabulary: string()
    .max(3000, 'The words have at most 3000 letters.')
    .defined()
    .test('vocabulary', (value, context) => {
      const read = readVocabulary(value)
      return read.ok || context.createError({ message: read.problem.sentence })
    }),
  theme: mixed<Theme>().oneOf(['dusk', 'daylight', 'system']).required(),
  marks: boolean().required(),
  turnMs: number()
    .integer()
    .min(0, 'A turn takes 0 to 1000 milliseconds.')
    .max(1000, 'A turn takes 0 to 1000 milliseconds.')
    .required(),
  hand: mixed<Hand>().oneOf(['right', 'left']).required(),
  cards: mixed<CardVoice>()
    .oneOf([...CARD_VOICES])
    .required(),
  keys: keysSchema,
}).noUnknown()
