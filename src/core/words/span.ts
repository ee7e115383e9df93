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

/** A part that is text by itself. */
export type TextSpan = Exclude<Span, { kind: 'turn' }>

export const textSpan = (text: string): TextSpan => ({ kind: 'text', text })

/** All of it as one text. */
export const textOf = (spans: readonly Span[], dialect?: DialectId): string =>
  capital(
    spans
      .map((span) => (span.kind === 'turn' ? writeTurnName(span.name, dialect) : span.text))
      .join(''),
  )

/** A sentence with parts in it: 'line`${piece} is home.`' */
export function line(
  texts: TemplateStringsArray,
  ...parts: readonly (string | number | Span | readonly Span[])[]
): Span[] {
  return texts.flatMap((text, i): Span[] => {
    const part = parts[i]
    const own = text === '' ? [] : [textSpan(text)]
    if (part === undefined || part === '') return own
    if (typeof part === 'string' || typeof part === 'number') return [...own, textSpan(`${part}`)]
    return [...own, ...(isSpan(part) ? [part] : part)]
  })
}

const isSpan = (part: Span | readonly Span[]): part is Span => 'kind' in part

/** Parts in a row: 'a, b and c'. */
export const listedSpans = (
  parts: readonly (readonly Span[] | Span)[],
  sign = ', ',
  last = ' and ',
): Span[] =>
  parts.flatMap((part, i) => {
    const own = isSpan(part) ? [part] : part
    return i === 0 ? own : [textSpan(i === parts.length - 1 ? last : sign), ...own]
  })

/** The first letter made a capital. */
export const capitalised = (spans: readonly Span[]): Span[] =>
  spans.map((span, i) =>
    i === 0 && span.kind !== 'turn' ? { ...span, text: capital(span.text) } : span,
  )

export const turnSpan = (name: string): Span => ({ kind: 'turn', name })
