/**
 * Dialects of turn notation. The canonical one is stored; the others are read and written at the
 * border. What one dialect means differently from another is never guessed silently.
 */
export interface Dialect {
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

export const DIALECTS = [
  { id: 'prime', name: 'letters with a prime', example: "R R' R2", back: "'", reads: APOSTROPHES },
  { id: 'i', name: 'letters with i', example: 'R Ri R2', back: 'i', reads: ['i', 'I'] },
] as const satisfies readonly Dialect[]

export type DialectId = (typeof DIALECTS)[number]['id']

export const CANONICAL: DialectId = 'prime'

export function dialectOf(id: DialectId): Dialect {
  return DIALECTS.find((dialect) => dialect.id === id) as Dialect
}
