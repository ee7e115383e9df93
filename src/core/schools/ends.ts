/** Puzzles with two square ends and sides between them: boxes longer or shorter than wide, and capped ones. */
import { directionOfName } from '../puzzle/directions'
import type { PuzzleDefinition } from '../puzzle/definition'

export interface Ends {
  /** The axis from one end to the other: 0, 1 or 2. */
  readonly axis: number
  /** Layers along a side of an end, and from one end to the other. */
  readonly width: number
  readonly length: number
}

/** Undefined for puzzles without ends, or with more than two. */
export function endsOf({ mechanism }: PuzzleDefinition): Ends | undefined {
  if (mechanism.kind === 'box') {
    const { size, middles = [1, 1, 1] } = mechanism
    // What of a smaller box is joined is as thick as it was.
    const thick = size.map((n, a) => n + middles[a])
    const axis = thick.findIndex((n, a) => thick.every((other, b) => b === a || other !== n))
    const width = size[(axis + 1) % 3]
    return axis >= 0 && width === size[(axis + 2) % 3]
      ? { axis, width, length: size[axis] }
      : undefined
  }
  if (mechanism.kind === 'capped' && mechanism.caps.length === 2) {
    const axes = mechanism.caps.map((cap) => directionOfName(cap).vector.findIndex((c) => c !== 0))
    if (axes[0] === axes[1]) return { axis: axes[0], width: 3, length: 5 }
  }
  return undefined
}
