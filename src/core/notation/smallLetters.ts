/**
 * Small letters have two meanings in use: the inner layer alone, or the outer two together. Where a puzzle has layers
 * of those names, as tips have, they mean these.
 */
import type { Puzzle } from '../puzzle/compile'

export type SmallMeaning = 'inner' | 'wide'

export const SMALL_MEANINGS: readonly SmallMeaning[] = ['inner', 'wide']

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
