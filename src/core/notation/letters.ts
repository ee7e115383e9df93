/**
 * Dialects of letters with brackets, that differ in the sign of a turn back only. The canonical one is stored; all
 * others are read and written at the border.
 */
export interface Letters {
  readonly id: string
  readonly name: string
  /** A turn, back and half, as an example for menus. */
  readonly example: string
  /** The sign of a turn back, as written. */
  readonly back: string
  /** Signs accepted as a turn back. */
  readonly reads: readonly string[]
}

const APOSTROPHES = ["'", '\u2019', '\u2032', '\u00b4']

export const LETTERS = [
  { id: 'prime', name: 'letters with a prime', example: "R R' R2", back: "'", reads: APOSTROPHES },
  { id: 'i', name: 'letters with i', example: 'R Ri R2', back: 'i', reads: ['i', 'I'] },
] as const satisfies readonly Letters[]

export type LettersId = (typeof LETTERS)[number]['id']

export const CANONICAL: LettersId = 'prime'

export function lettersOf(id: LettersId): Letters {
  return LETTERS.find((letters) => letters.id === id) as Letters
}
