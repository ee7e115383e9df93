import type { ClaimKind, Of } from '../claim'
import type { Evidence } from '../evidence'

/** Whether a claim of one kind is so: read off the states, without a word. */
export type Judges<Kinds extends ClaimKind> = {
  readonly [Kind in Kinds]: (claim: Of<Kind>, evidence: Evidence) => boolean
}
