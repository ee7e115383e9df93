/**
 * What the program says about a puzzle, before it is said: plain data. Each kind is judged on the engine
 * (`isTrue`) and put into words (`core/words`) in one place. Pieces and places are ids; a place is called after the
 * piece whose home it is, in the hold of the moment that the claim speaks of.
 */
import type { Look } from '../analysis/who'
import type { Puzzle } from '../puzzle/compile'
import type { Direction } from '../puzzle/directions'

export type PieceId = string

/** Of a piece at its place: all of it is as in the finished puzzle, it is in its own place but turned, or neither. */
export type Lies = 'home' | 'turned' | 'on'

export type Claim =
  /** A piece lies in a place; without one it lies outside the finished shape. */
  | { readonly kind: 'pieceAt'; readonly piece: PieceId; readonly place?: PieceId }
  /**
   * After the turns of the step, and once nothing is owed any more, it lies in a place.
   *
   * @property line the number of the card's line at whose piece that place is now
   * @property isOwed that some turns have to be undone for it: they stand before the step, or after it
   */
  | {
      readonly kind: 'goesTo'
      readonly piece: PieceId
      readonly place: PieceId
      readonly lies: Lies
      readonly line?: number
      readonly isOwed?: true
    }
  /** It is in the same place afterwards. */
  | {
      readonly kind: 'turnsThere'
      readonly piece: PieceId
      readonly was: Lies
      readonly lies: Lies
    }
  /** It is somewhere else after the turns: it is lifted out of where it lies. */
  | { readonly kind: 'takenOut'; readonly piece: PieceId }
  /** Which way some of its faces look in the picture, a few of them, each by the nearest of the six first. */
  | { readonly kind: 'shows'; readonly piece: PieceId; readonly looks: readonly Look[] }
  /** The side of the finished puzzle of that name is held there. */
  | { readonly kind: 'sideHeld'; readonly side: Direction['name']; readonly at: Direction['name'] }
  /** The whole puzzle is turned so before anything else; no turns: it is held as it was. */
  | { readonly kind: 'holdBy'; readonly turns: readonly string[] }
  /** After so many turns of layers: what the claims after it speak of. */
  | { readonly kind: 'afterTurns'; readonly count: number }
  /** A finished sentence: of what was stored before there were claims, and of what has none yet. */
  | { readonly kind: 'text'; readonly text: string }

export type ClaimKind = Claim['kind']

/** What is said in one place of a card: claims in their order, true at one moment. */
export type Said = readonly Claim[]

export const NOTHING_SAID: Said = []

/** A finished sentence as it is, or claims as they are. */
export const asSaid = (said: string | Said): Said =>
  typeof said !== 'string' ? said : said === '' ? NOTHING_SAID : [{ kind: 'text', text: said }]

/** The index of a piece or of a place, -1 where the puzzle has none of that name. */
export const indexOf = ({ pieces }: Pick<Puzzle, 'pieces'>, id: PieceId): number =>
  pieces.findIndex((piece) => piece.id === id)

/** The same of other pieces. */
export const ofPieces = (said: Said, called: (piece: PieceId) => PieceId): Said =>
  said.map((claim) => ('piece' in claim ? { ...claim, piece: called(claim.piece) } : claim))

/** Whether the puzzle has all that a claim names, so that it can be judged and said. */
export function isSayable(puzzle: Puzzle, claim: Claim): boolean {
  const { colours, faces } = puzzle.definition
  if ('piece' in claim && indexOf(puzzle, claim.piece) < 0) return false
  if ('place' in claim && claim.place !== undefined && indexOf(puzzle, claim.place) < 0)
    return false
  if (claim.kind === 'sideHeld') return colours.some(({ id }) => id === faces[claim.side])
  if (claim.kind !== 'shows') return true
  return claim.looks.every(({ colour }) => colours.some(({ id }) => id === colour))
}
