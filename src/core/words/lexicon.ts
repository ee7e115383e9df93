/** What a language has to offer: claims in, spans out. */
import type { Claim } from '../claims/claim'
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
}

/** How a language says things: claims that follow each other may become one sentence. */
export interface Lexicon {
  /** The words of the first claims, and how many claims they are; a sentence ends with its sign. */
  readonly first: (
    claims: readonly [Claim, ...Claim[]],
    speaker: Speaker,
  ) => { readonly spans: readonly Span[]; readonly of: number }
}
