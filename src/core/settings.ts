/** What a solver can set, with the defaults and the schema that every stored value meets. */
import { boolean, mixed, number, object, string } from 'yup'
import { DIALECTS, type DialectId } from './notation/dialect'
import type { Hand } from './search/handCost'

export type Theme = 'dusk' | 'daylight'

export interface Settings {
  readonly nickname: string
  readonly readDialect: DialectId
  readonly writeDialect: DialectId
  readonly theme: Theme
  /** Marks on every sticker. */
  readonly marks: boolean
  /** How long a turn takes on screen. */
  readonly turnMs: number
  readonly hand: Hand
}

export const DEFAULT_SETTINGS: Settings = {
  nickname: '',
  readDialect: 'prime',
  writeDialect: 'prime',
  theme: 'dusk',
  marks: false,
  turnMs: 180,
  hand: 'right',
}

const dialects = DIALECTS.map(({ id }) => id)

export const settingsSchema = object({
  nickname: string().trim().max(80, 'A nickname has at most 80 letters.').default(''),
  readDialect: mixed<DialectId>().oneOf(dialects).required(),
  writeDialect: mixed<DialectId>().oneOf(dialects).required(),
  theme: mixed<Theme>().oneOf(['dusk', 'daylight']).required(),
  marks: boolean().required(),
  turnMs: number()
    .integer()
    .min(0, 'A turn takes 0 to 1000 milliseconds.')
    .max(1000, 'A turn takes 0 to 1000 milliseconds.')
    .required(),
  hand: mixed<Hand>().oneOf(['right', 'left']).required(),
}).noUnknown()
