/**
 * A school is a solving method as data: ordered stages, each with a goal and one technique. Nothing
 * here is code for one puzzle. Layers are named by their part in the method: `base` is the layer of
 * the colour that the solver starts with, `last` the one opposite.
 */
import type { FaceLetter } from '../puzzle/directions'
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

/** A four-turn commutator with the slot that it fills and the working spot it fills it from. */
export interface Trigger {
  readonly turns: string
  readonly slot: string
  readonly spot: string
}

export type Technique =
  /** Bring pieces of the base layer home one by one by the shortest turns. */
  | { readonly kind: 'gather'; readonly must: 'home' | 'faced'; readonly select?: Selection }
  /** Bring each piece to a working spot and repeat a trigger until it sits right. */
  | { readonly kind: 'trigger'; readonly triggers: readonly Trigger[] }
  /**
   * Turn the last layer, count the placed pieces, decide. `cycle` moves three places of the last
   * layer and leaves the one at `held`; without it the program derives one.
   */
  | { readonly kind: 'count'; readonly held: string; readonly cycle?: string }
  /** Repeat a trigger at one spot, turn the last layer, and so on; the rest comes back by itself. */
  | { readonly kind: 'twist'; readonly trigger: string; readonly spot: string }
  /**
   * Recognise one of a few cases and do its algorithm. The cases are enumerated and the algorithms
   * found by the program; `before` and `after`: a turn of the last layer may be needed there.
   */
  | {
      readonly kind: 'case'
      readonly reading: 'directions' | 'bars'
      readonly holds: readonly string[]
      readonly before: boolean
      readonly after: boolean
      readonly layers: readonly FaceLetter[]
    }
  /** Pieces that only turn in their places, each by one turn of a layer that carries it. */
  | { readonly kind: 'spin'; readonly select: Selection; readonly layers: readonly string[] }
  /**
   * Pieces one by one: a hold about the base axis, a turn of the last layer, then one of these sequences,
   * some runs of it. A piece that no sequence brings home is lifted out by one.
   */
  | {
      readonly kind: 'insert'
      readonly select: Selection
      readonly sequences: readonly string[]
      readonly fetch: string
      readonly runs: number
    }
  /**
   * Sequences known by heart, each from a hold about the base axis and after a turn of the last layer, until
   * the goal is met, at most `times` of them. Without any the program derives one a case.
   */
  | {
      readonly kind: 'known'
      readonly select: Selection
      readonly sequences?: readonly string[]
      readonly fetch: string
      readonly times: number
    }
  /**
   * Three pieces of one orbit at a time by a sequence that moves these and what no goal asks for yet: set up,
   * do, undo. From any hold about the base axis, forwards or back; first a turn of `turn` where the count of
   * odd and even asks for it. Without sequences those that are derived for the
   * orbit, which leave everything else alone.
   */
  | {
      readonly kind: 'series'
      readonly select: Selection
      readonly sequences?: readonly string[]
      readonly turn?: string
    }
  /**
   * In a box whose sides only half-turn: sequences that exchange pieces of one of the boxes that lie in each
   * other, each from a hold about the long axis and after turns of the box's own two layers. They are made with
   * the right side as the work side: after an odd number of its half turns all other boxes are half done there,
   * so they are put in a row until the number is even.
   */
  | { readonly kind: 'swap'; readonly select: Selection; readonly sequences: readonly string[] }
  /**
   * Parts of the pieces of a smaller box brought together: at each step turns of outer layers, then one of these
   * sequences or its mirror image, from any hold, whichever brings the most together for the fewest turns.
   */
  | { readonly kind: 'join'; readonly select: Selection; readonly sequences: readonly string[] }
  /**
   * Pieces that may stand for their equals, some at a time: one turn, two turns and both back, or three and another
   * and all back, set up by a few and undone, whichever brings the most home for its turns. What no goal asks for
   * yet may move.
   */
  | { readonly kind: 'commutator'; readonly select: Selection }
  /**
   * A cap of a capped core, in blocks: a corner with its edge, two by two, two by three, then the bar that is left;
   * each lifted in from another cap while the block so far is turned out of the way.
   */
  | { readonly kind: 'blocks'; readonly select: Selection }
  /** What stages of another school do, on the smaller box of that size that all is joined into. */
  | {
      readonly kind: 'as'
      readonly size: Vector
      readonly school: string
      readonly stages: readonly string[]
    }
  /**
   * What turns of the smaller box can never mend, where it is there: by one of these sequences, from a hold about
   * the base axis and after a turn of the opposite layer.
   */
  | {
      readonly kind: 'remedy'
      readonly select: Selection
      readonly sequences: readonly string[]
      readonly fetch: string
    }
  /** An orbit whose arrangements are few enough to be listed, all its pieces together; some others stay. */
  | { readonly kind: 'small'; readonly select: Selection; readonly keeping?: Selection }
  /** Whatever is left, piece by piece, as the universal school does it. */
  | { readonly kind: 'rest' }
  /** The least number of turns, from the table of all states. */
  | { readonly kind: 'optimal' }
  /** The shape comes back, whatever the colours; what follows is done in shape. */
  | { readonly kind: 'reshape' }
  /** The finished shape, whatever the colours: the first stage of the universal school. */
  | { readonly kind: 'shape' }
  /** Odd and even settled, or the pieces of one orbit brought home three at a time. */
  | { readonly kind: 'sums' }
  | { readonly kind: 'cycles'; readonly orbit: number }

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
