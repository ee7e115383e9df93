/** What is said, in parts: a screen draws them, a voice reads them; turns are written as the solver writes them. */
import type { PieceId } from '../claims/claim'
import type { DialectId } from '../notation/dialectId'
import { writeTurnName } from '../notation/write'
import { capital } from '../phrases'

export type Span =
  | { readonly kind: 'text'; readonly text: string }
  /** A turn by its canonical name. */
  | { readonly kind: 'turn'; readonly name: string }
  | { readonly kind: 'piece'; readonly piece: PieceId; readonly text: string }
  | { readonly kind: 'place'; readonly place: PieceId; readonly text: string }

export const textSpan = (text: string): Span => ({ kind: 'text', text })

/** All of it as one text. */
export const textOf = (spans: readonly Span[], dialect?: DialectId): string =>
  capital(
    spans
      .map((span) => (span.kind === 'turn' ? writeTurnName(span.name, dialect) : span.text))
      .join(''),
  )
