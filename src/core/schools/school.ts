/**
 * A school is a solving method as data: ordered stages, each with a goal and one technique. Nothing
 * here is code for one puzzle. Layers are named by their part in the method: `base` is the layer of
 * the colour that the solver starts with, `last` the one opposite.
 */
import type { FaceLetter } from '../puzzle/directions'
import type { Technique } from './techniques'
import type { Vector } from '../rotation'

export type Role = 'base' | 'last'

/**
 * Which pieces, told in the frame of the base: by short kind, by layer, and all but some. `base` are the
 * pieces that show the base side, `last` those that show the side opposite (where there is none: all
 * others), `middle` what lies between.
 */
export interface Selection {
  /** Told of the smaller box of that size, whose pieces are joined from those of this one: all parts of these. */
  readonly as?: Vector
  /** Of which of several boxes that are conjoined, from 0. */
  readonly half?: number
  readonly kinds?: readonly string[]
  readonly layers?: readonly (Role | 'middle')[]
  /**
   * In a box with two square ends: which of the boxes that lie in each other, 1 the outermost, 0 the belt that
   * is left in the middle. `layers` are then its own two.
   */
  readonly box?: number
  /** Of these the columns along the long axis: at its edges, in the middle of its sides, or on the axis. */
  readonly columns?: readonly Column[]
  /** Bits of that circle, from 1 in the order in which a puzzle's circles are done. */
  readonly circle?: number
  /** Pieces of that cap, from 1 in the order in which the caps of a core are done. */
  readonly cap?: number | 'last'
  readonly but?: Selection
}

export type Column = 'corner' | 'side' | 'axis'

/**
 * home: in the right place, rightly oriented · placed: in the right place, twist ignored · faced:
 * in the layer with the layer's colour outward, whichever place it is · looks home: its home
 * shows what it shows when finished, so equal pieces may stand for each other · in shape: in some place of the
 * finished puzzle · settled: no piece, but all: exchanges even in every orbit and twists adding up to nothing ·
 * even: an even number of exchanges would bring all of them to their places ·
 * together: pieces on one ray from the core (a tip and what lies under it) have one rotation, whichever it is; of
 * a smaller box the parts of each of its pieces, equal ones in any order · solvable: all pieces of the smaller box lie as
 * its turns can leave them; if only some are asked about, but for exchanges.
 */
export type Must =
  | 'home'
  | 'placed'
  | 'faced'
  | 'looks home'
  | 'in shape'
  | 'settled'
  | 'even'
  | 'together'
  | 'solvable'

export interface Condition {
  readonly layer: Role
  readonly must: Must
  /** The pieces that it concerns, by what they are. */
  readonly select?: Selection
  /** The pieces that it concerns, as indices; those of the layer if not given. */
  readonly pieces?: readonly number[]
  /** So many of them may still be wrong. */
  readonly spare?: number
}

export type { Technique } from './techniques'

/** What a stage may ask of the puzzle: whether a turn of a centre in its place can be seen, a middle layer between ends. */
export type Fact = 'centres tell' | 'no centre tells' | 'has a belt'

export interface Stage {
  readonly id: string
  readonly name: string
  /** What is done when the lantern is lit. `{base}` and `{last}` stand for the colours. */
  readonly aim: string
  /** The same where sides have no colour of their own: `{base}` and `{last}` stand for the pieces in their middle. */
  readonly aimInSolid?: string
  /** Where the base layer is held. */
  readonly base: FaceLetter
  readonly goal: readonly Condition[]
  readonly technique: Technique
  /** Present if the stage belongs to some variants only: option id to choice id. */
  readonly when?: Readonly<Record<string, string>>
  /** Present if the stage is for some puzzles only. */
  readonly asks?: Fact
  /**
   * Of a box with two square ends: done where there is a belt, or once for each of the boxes that lie in each
   * other, from the inside out. It is written for the outermost; `{box}` in its words stands for which one.
   */
  readonly for?: 'the belt' | 'each box'
}

export interface SchoolOption {
  readonly id: string
  readonly name: string
  /** The first choice is the default. */
  readonly choices: readonly { readonly id: string; readonly name: string }[]
}

/** A condition on a puzzle: its mechanism, and that no pieces are glued. */
export type Fit =
  /** `inSolids`: whatever solid is cut over it; else the plain box only. */
  | {
      readonly mechanism: 'box'
      readonly size: readonly [number, number, number]
      readonly inSolids?: boolean
    }
  /**
   * A box with two square ends so wide, and so long from one to the other, sides that only half-turn. A school
   * is written for ends above and below; in another hold it is taught in the letters of that hold.
   */
  | {
      /** `capped`: a core with caps at two ends, which counts as a box with these. */
      readonly mechanism: 'box' | 'capped'
      readonly ends: number
      readonly length: readonly [least: number, most: number]
      readonly inSolids?: boolean | 'only'
      /** An odd number of layers from end to end, so that one lies in the middle. */
      readonly withBelt?: boolean
    }
  | { readonly mechanism: 'tetrahedron' }
  | { readonly mechanism: 'circles' }
  /**
   * A core with so many pairs of caps across from each other, and no single one. A stage for a cap that is not
   * there, or is the last one, is left out.
   */
  | { readonly mechanism: 'capped'; readonly pairs: readonly [least: number, most: number] }
  /**
   * Two boxes of one size, apart along two axes: of each two outer layers turn. A school is written for a first
   * half with U and R and a second one with D and L; in another hold it is taught in the letters of that hold.
   */
  | {
      readonly mechanism: 'conjoined'
      readonly size: readonly [number, number, number]
      readonly count: number
    }
  /** Derived for one puzzle, and offered to no other. */
  | { readonly mechanism: 'any' }

export interface School {
  readonly id: string
  readonly name: string
  /** One or two sentences: what it asks of the solver. */
  readonly character: string
  /** Which puzzles it is taught for: by what they are, never by name. */
  readonly fits: Fit
  readonly options: readonly SchoolOption[]
  /** No side comes first: it is planned in the hold that there is. */
  readonly isWithoutBase?: boolean
  /**
   * The last layer is one whose centre shows no turn, if there is any: what odd and even leave over can then
   * be mended by turning it.
   */
  readonly lastCentreTellsLeast?: boolean
  readonly stages: readonly Stage[]
}

/** One choice an option; missing ones are the defaults. */
export type Variant = Readonly<Record<string, string>>

export function fullVariant(school: School, variant: Variant): Variant {
  return Object.fromEntries(
    school.options.map(({ id, choices }) => [
      id,
      choices.find((choice) => choice.id === variant[id])?.id ?? choices[0].id,
    ]),
  )
}

/** The stages of one variant, in order. */
export function stagesOf(school: School, variant: Variant): Stage[] {
  const full = fullVariant(school, variant)
  return school.stages.filter(({ when }) =>
    Object.entries(when ?? {}).every(([option, choice]) => full[option] === choice),
  )
}

/** Every combination of choices. */
export function variantsOf(school: School): Variant[] {
  return school.options.reduce<Variant[]>(
    (variants, { id, choices }) =>
      variants.flatMap((variant) => choices.map((choice) => ({ ...variant, [id]: choice.id }))),
    [{}],
  )
}
