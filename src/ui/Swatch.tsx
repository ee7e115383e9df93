import type { Colour } from '@/core/puzzle/colours'
import { markInk, MARK_PATHS } from './marks'

/** A colour with its mark, for those who see; its name stands beside it or on the control around it. */
export function Swatch({ colour: { shade, mark }, marks }: { colour: Colour; marks: boolean }) {
  return (
    <svg viewBox="-1.3 -1.3 2.6 2.6" className="size-6 shrink-0 rounded" aria-hidden>
      <rect x="-1.3" y="-1.3" width="2.6" height="2.6" fill={shade} />
      {marks && <path d={MARK_PATHS[mark]} fill={markInk(shade)} />}
    </svg>
  )
}
