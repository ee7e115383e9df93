/** What a language has to offer: claims in, spans out. */
import type { Claim, ClaimKind, Of } from '../claims/claim'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import type { Span } from './span'

/** `full` where a case is new to whoever reads it; `brief` where they only need to be reminded. */
export type Register = 'full' | 'brief'

/** To whom, and of what. */
export interface Speaker {
  readonly puzzle: Puzzle
  readonly scheme: Scheme
  /** How the puzzle is held at the moment of which is spoken: places are called in that hold. */
  readonly frame: Rotation
  readonly register: Register
  /** The turns of the step once its hold is taken, by canonical name: some are told by their number. */
  readonly turns: readonly string[]
}

/** Words, and how many claims they say. */
export interface Told {
  readonly spans: readonly Span[]
  readonly of: number
}

/** How a language says things: claims that follow each other may become one sentence, which ends with its sign. */
export interface Lexicon {
  readonly first: (claims: readonly [Claim, ...Claim[]], speaker: Speaker) => Told
}

/** How claims of some kinds are said: alone, or with claims that come after. */
export type Sayers<Kinds extends ClaimKind> = {
  readonly [Kind in Kinds]: (
    claim: Of<Kind>,
    speaker: Speaker,
    after: readonly Claim[],
  ) => readonly Span[] | Told
}
