import type { Scheme } from '@/core/puzzle/colours'
import { pictureAddress } from './address'

/** The pair of windows drawn flat, as a picture that the browser fetches when it comes into sight, and keeps. */
export function PuzzleImage({
  puzzleId,
  state,
  scheme,
  marks = false,
  label,
  className,
}: {
  puzzleId: string
  /** As `writeState` writes it; finished if not given. */
  state?: string
  /** The puzzle's own if not given. */
  scheme?: Scheme
  marks?: boolean
  /** For those who do not see it; empty if the words beside it say the same. */
  label: string
  className?: string
}) {
  return (
    // Nothing is gained by making a drawing of lines smaller on the way.
    // eslint-disable-next-line @next/next/no-img-element
    <img
      src={pictureAddress(puzzleId, state, scheme, marks)}
      alt={label}
      loading="lazy"
      decoding="async"
      width={420}
      height={210}
      className={className}
    />
  )
}
