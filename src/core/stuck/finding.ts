/** What a position can turn out to be, and the count that shows it. */
import type { Turn } from '../puzzle/compile'
import type { Correction } from '../universal/correct'
import type { ReductionParity } from '../universal/reductionParity'

/** Plain data: it crosses to the page as it is. */
export type Finding =
  | { readonly kind: 'home' }
  /** Turns lead home, and nothing is odd about it. `shape`: the finished shape comes first. */
  | { readonly kind: 'not finished'; readonly wrong: readonly number[]; readonly shape: boolean }
  /** What looks at home cannot all be at home: the fewest unseen changes that explain it. */
  | {
      readonly kind: 'look-alike'
      /** Two equal pieces that have traded places, or one turned in its place. */
      readonly traded: readonly (readonly number[])[]
      readonly wrong: readonly number[]
    }
  | { readonly kind: 'reduction parity'; readonly parity: ReductionParity }
  /** One layer is off by one turn, or only pieces that never leave their places are turned. */
  | { readonly kind: 'frame'; readonly turn?: Turn; readonly turned: readonly number[] }
  /** No turns lead here: pieces where no turns take them, or sums that turns do not have. */
  | {
      readonly kind: 'assembly'
      readonly strays: readonly number[]
      readonly corrections: readonly Correction[]
      /** The shape itself cannot be reached. */
      readonly shape: boolean
      /** The small group that permutes these places has no such arrangement, whatever the sums. */
      readonly group?: readonly number[]
    }
  /** Nothing speaks against it, but no turns that lead here are known. */
  | { readonly kind: 'not known'; readonly why: WhyNotKnown }

/** Why it is not proved that turns lead somewhere. */
export type WhyNotKnown =
  /** Turns can be blocked, and what decides it can lie in too many ways. */
  | 'blocked'
  /** Some pieces turn about more than one axis in their places: their twists are no sum. */
  | 'twists'
  | 'noShapeWay'
  /** Not all that the puzzle can do out of shape is listed. */
  | 'outOfShape'
  | 'notServed'

export type Verdict = Finding['kind']

/** The arithmetic of one orbit: how far its pieces are from home. */
export interface OrbitAccount {
  readonly places: readonly number[]
  /** How many do not look home. */
  readonly wrong: number
  /** 1 if an odd number of exchanges brings them home; undefined for a single place. */
  readonly parity?: number
  /** The sum of their twists in `ways`-ths of a turn; undefined if they cannot twist. */
  readonly twist?: { readonly sum: number; readonly ways: number }
}
