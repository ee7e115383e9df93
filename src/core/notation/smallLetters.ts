/**
 * Small letters have two meanings in use: the inner layer alone, or the outer two together. Each is a dialect of its
 * own. Where a puzzle has layers of those names, as tips have, they mean these.
 */
import type { Puzzle } from '../puzzle/compile'

export type SmallMeaning = 'inner' | 'wide'

export const SMALL_MEANINGS: readonly SmallMeaning[] = ['inner', 'wide']

export const SMALL_WORDS: Readonly<Record<SmallMeaning, string>> = {
  inner: 'the inner layer alone',
  wide: 'the outer two together',
}

export const SMALL = [
  { id: 'small-inner', name: `small letters, ${SMALL_WORDS.inner}`, example: "R r' r2" },
  { id: 'small-wide', name: `small letters, ${SMALL_WORDS.wide}`, example: "R r' r2" },
] as const

export type SmallId = (typeof SMALL)[number]['id']

/** What small letters mean in a dialect; undefined where it has none of its own. */
export const smallOf = (id: string): SmallMeaning | undefined =>
  SMALL_MEANINGS.find((meaning) => id === `small-${meaning}`)

const LAYER: Readonly<Record<SmallMeaning, RegExp>> = {
  inner: /^2([UDFBRL])(2|'|)$/,
  wide: /^1-2([UDFBRL])(2|'|)$/,
}

/** A turn by its canonical name, with a small letter where one means it. */
export const withSmallLetter = (name: string, meaning: SmallMeaning): string =>
  name.replace(LAYER[meaning], (_, letter: string, amount: string) => letter.toLowerCase() + amount)

/** A text with its small letters as layers; `at` says where a place of it was before. */
export function withSmallLetters(
  puzzle: Puzzle,
  text: string,
  meaning: SmallMeaning,
): { readonly text: string; readonly at: (index: number) => number } {
  const isOwn = (letter: string) => puzzle.grips.some(({ name }) => name === letter)
  const places: number[] = []
  let made = ''
  for (const [i, letter] of [...text].entries()) {
    const isSmall = /[udfbrl]/.test(letter) && !isOwn(letter)
    const big = letter.toUpperCase()
    const written = !isSmall ? letter : meaning === 'inner' ? `2${big}` : `${big}w`
    for (let k = 0; k < written.length; k++) places.push(i)
    made += written
  }
  return { text: made, at: (index) => places[index] ?? text.length }
}
