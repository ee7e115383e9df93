/** Whether what is claimed is so: one judge a kind, total over all kinds. */
import type { Claim, ClaimKind, Of } from './claim'
import type { Evidence } from './evidence'
import { OF_BOXES } from './judges/boxes'
import { OF_CAPS } from './judges/caps'
import { OF_CASES } from './judges/cases'
import { OF_COUNTS } from './judges/counts'
import { OF_EFFECTS } from './judges/effects'
import { OF_FACTS } from './judges/facts'
import { OF_JOINS } from './judges/joins'
import type { Judges } from './judges/judge'
import { OF_ORBITS } from './judges/orbits'
import { OF_PLACES } from './judges/places'
import { OF_REMEDIES } from './judges/remedies'
import { OF_TRIGGERS } from './judges/triggers'
import { OF_VERDICTS } from './judges/verdicts'

export type { Evidence, Moment } from './evidence'

const JUDGES: Judges<ClaimKind> = {
  ...OF_PLACES,
  ...OF_COUNTS,
  ...OF_ORBITS,
  ...OF_CAPS,
  ...OF_BOXES,
  ...OF_JOINS,
  ...OF_REMEDIES,
  ...OF_TRIGGERS,
  ...OF_CASES,
  ...OF_VERDICTS,
  ...OF_EFFECTS,
  ...OF_FACTS,
  // What a finished sentence says is read back elsewhere.
  text: () => true,
}

export const isTrue = <Kind extends ClaimKind>(
  claim: Of<Kind> & Claim,
  evidence: Evidence,
): boolean => (JUDGES[claim.kind as Kind] as Judges<Kind>[Kind])(claim, evidence)
