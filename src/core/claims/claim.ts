/**
 * What the program says about a puzzle, before it is said: plain data. Each kind is a row of `CLAIMS`; it is judged
 * on the engine (`isTrue`) and put into words (`core/words`) in one place each. Pieces and places are ids; a place is
 * called after the piece whose home it is, in the hold of the moment that the claim speaks of.
 */
import { joinedAs } from '../analysis/joined'
import type { Puzzle } from '../puzzle/compile'
import type { Vector } from '../rotation'
import type { Read } from '../typed'
import type { Field, PieceId } from './fields'
import { CLAIMS } from './kinds'

export type { PieceId } from './fields'
export { CLAIMS } from './kinds'
export type * from './kinds'

type Fields = Readonly<Record<string, Field<unknown>>>

export type ClaimKind = keyof typeof CLAIMS

type ClaimsOf = {
  readonly [Kind in ClaimKind]: { readonly kind: Kind } & Read<(typeof CLAIMS)[Kind]>
}

export type Claim = ClaimsOf[ClaimKind]
export type Of<Kind extends ClaimKind> = ClaimsOf[Kind]

/** What is said in one place of a card: claims in their order, true at one moment. */
export type Said = readonly Claim[]

export const NOTHING_SAID: Said = []

/** The index of a piece or of a place, -1 where the puzzle has none of that name. */
export const indexOf = ({ pieces: all }: Pick<Puzzle, 'pieces'>, id: PieceId): number =>
  all.findIndex((each) => each.id === id)

export const fieldsOf = (kind: ClaimKind): Fields => CLAIMS[kind]

export const isKind = (kind: unknown): kind is ClaimKind =>
  typeof kind === 'string' && Object.hasOwn(CLAIMS, kind)

/** The names of one meaning in a claim. */
function namesIn(claim: Claim, naming: Field<unknown>['naming']): string[] {
  const values = Object.entries(fieldsOf(claim.kind)).flatMap(([name, field]) =>
    field.naming === naming ? [(claim as Readonly<Record<string, unknown>>)[name]] : [],
  )
  return values.flat().filter((value) => typeof value === 'string')
}

/** The same of other pieces; places stay. */
export const ofPieces = (said: Said, called: (piece: PieceId) => PieceId): Said =>
  said.map((claim) => {
    const changes = Object.entries(fieldsOf(claim.kind)).flatMap(([name, field]) => {
      const value = (claim as Readonly<Record<string, unknown>>)[name]
      if (field.naming !== 'piece' || value === undefined) return []
      return [[name, Array.isArray(value) ? value.map(called) : called(value as string)]]
    })
    return { ...claim, ...Object.fromEntries(changes) } as Claim
  })

/** Whether the puzzle has all that a claim names, so that it can be judged and said. */
export function isSayable(puzzle: Puzzle, claim: Claim): boolean {
  const { colours, faces } = puzzle.definition
  const hasAll = (of: Pick<Puzzle, 'pieces'>, ids: readonly string[]) =>
    ids.every((id) => indexOf(of, id) >= 0)
  if (!hasAll(puzzle, [...namesIn(claim, 'piece'), ...namesIn(claim, 'place')])) return false
  if (!namesIn(claim, 'turn').every((name) => puzzle.turnByName.has(name))) return false
  const asked = [
    ...namesIn(claim, 'colour'),
    ...('looks' in claim ? claim.looks.map((look) => look.colour) : []),
    ...(claim.kind === 'sideHeld' ? [faces[claim.side]] : []),
  ]
  if (!asked.every((id) => colours.some((each) => each.id === id))) return false
  if (!('as' in claim)) return true
  const joined = joinedAs(puzzle, claim.as)
  return joined !== undefined && hasAll(joined.small, namesIn(claim, 'whole'))
}

/** The smaller box that a claim speaks of. */
export function smallOf(puzzle: Puzzle, size: Vector) {
  const joined = joinedAs(puzzle, size)
  if (!joined) throw new Error('the puzzle is no such smaller box')
  return joined
}
