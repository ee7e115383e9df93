/** The spoken dialects. A new one is a file beside the others and a line here. */
import { arrows } from './arrows'
import { hands } from './hands'
import { numberFirst } from './numberFirst'
import { raiseLower } from './raiseLower'
import type { Spoken } from './spoken'
import { words } from './words'

export const SPOKEN: readonly Spoken[] = [numberFirst, hands, raiseLower, arrows, words]

export const spokenDialect = (id: string): Spoken | undefined =>
  SPOKEN.find((dialect) => dialect.id === id)
