import type { Must, Role } from '../schools/school'
import type { FaceName } from '../puzzle/directions'
import type { Vector } from '../rotation'
import type { RouteStep } from './route'

/** What a step is for: facts from which its words are made. Pieces and places are indices. */
export type Aim =
  /** Take the hold in which the first pieces count as home. */
  | { readonly kind: 'start'; readonly piece: number; readonly already: readonly number[] }
  | {
      readonly kind: 'insert'
      readonly piece: number
      /** Home, or anywhere in the layer with the layer's colour outward. */
      readonly must: 'home' | 'faced'
      /** Repeats of the trigger; 0 where plain turns are used. */
      readonly runs: number
      readonly trigger: readonly string[]
      /** The last turn of the last run is left out: it concerns the other layer only. */
      readonly lastDropped: boolean
      readonly others: readonly OtherPiece[]
    }
  /** A piece of the layer sits in a wrong slot: get it out. */
  | { readonly kind: 'takeOut'; readonly piece: number; readonly trigger: readonly string[] }
  | {
      readonly kind: 'count'
      /** Placed pieces for no, one, two and three quarter turns of the last layer. */
      readonly counts: readonly number[]
      readonly action: 'align' | 'cycle' | 'cycleAnyway'
      readonly runs: number
      readonly cycle: readonly string[]
      /** The placed piece that is held still. */
      readonly piece?: number
    }
  | {
      readonly kind: 'twist'
      readonly piece: number
      readonly trigger: readonly string[]
      readonly runs: number
      readonly runsBefore: number
      readonly runsTotal: number
      readonly left: number
    }
  /** A step that another school has planned, with its words. */
  | { readonly kind: 'given'; readonly step: RouteStep }
  /** A piece is turned right in its place by one turn. */
  | { readonly kind: 'spin'; readonly piece: number }
  /** A piece is brought home by a known sequence, or lifted out by one. */
  | {
      readonly kind: 'bring'
      readonly piece: number
      readonly isLift: boolean
      readonly sequence: readonly string[]
      readonly runs: number
      readonly others: readonly OtherPiece[]
    }
  /** A sequence known by heart is done for some pieces. */
  | {
      readonly kind: 'known'
      readonly pieces: readonly number[]
      readonly must: Must
      readonly layer: Role
      readonly sequence: readonly string[]
    }
  /** Three pieces go round by a known sequence, with set-up and undoing. */
  | {
      readonly kind: 'series'
      readonly pieces: readonly [number, number, number]
      /** Those of the stage. */
      readonly of: readonly number[]
      readonly sequence: readonly string[]
      /** What could be the third instead, the first staying the same, and how many then arrive. */
      readonly thirds: readonly { readonly piece: number; readonly arrive: number }[]
    }
  /** Pieces of a box change places by a row of half turns of one side. */
  | {
      readonly kind: 'swap'
      /** Those of the stage. */
      readonly pieces: readonly number[]
      /** The sequence known by heart in it, if there is one. */
      readonly sequence: readonly string[]
      /** The half turn of the work side, where what is done lies there too, and how often it is made. */
      readonly side?: { readonly turn: string; readonly times: number }
    }
  /** Parts of pieces of a smaller box are brought together. */
  | {
      readonly kind: 'join'
      readonly size: Vector
      /** Those of the stage, as pieces of the smaller box; how many parts of each lie together. */
      readonly of: readonly number[]
      readonly before: readonly number[]
      readonly after: readonly number[]
      /** The turns between which a slice stands open. */
      readonly open?: { readonly from: string; readonly to: string }
      /** Whether the last two are joined by a slice that exchanges equal strips besides, and back where all are equal. */
      readonly isByStrips?: boolean
      /** What could be taken apart for the same pair instead, best placed first. */
      readonly rivals: readonly Rival[]
    }
  /** What the smaller box cannot mend is mended; its pieces that the stage asks about. */
  | {
      readonly kind: 'remedy'
      readonly size: Vector
      readonly of: readonly number[]
      readonly sequence: readonly string[]
    }
  /** Equal pieces come home by a commutator. */
  | {
      readonly kind: 'commutator'
      /** Those of the stage. */
      readonly of: readonly number[]
      /** What is done, and what then, before both are taken back; where it is one turn, nothing of it. */
      readonly parts?: readonly [first: readonly string[], second: string]
    }
  /** A block grows in a cap. */
  | {
      readonly kind: 'blocks'
      /** The cap's pieces, and its side when all is finished. */
      readonly of: readonly number[]
      readonly side: FaceName
    }
  /** A turn of one layer makes an odd number of exchanges even. */
  | { readonly kind: 'even'; readonly of: readonly number[] }
  /** Only a turn of the last layer is missing. */
  | { readonly kind: 'align' }
  | {
      readonly kind: 'case'
      readonly caseIndex: number
      readonly caseCount: number
      /** The sequences of all cases, in their order. */
      readonly algorithms: readonly string[]
      readonly reading: 'directions' | 'bars'
      readonly algorithm: readonly string[]
    }

/** Two that lie in one place and are no pair, taken apart where another pair is joined. */
export interface Rival {
  readonly pieces: readonly [number, number]
  /** One of the pair that is joined. */
  readonly pair: number
  readonly turns: readonly string[]
}

export interface OtherPiece {
  readonly piece: number
  readonly turns: number
}
