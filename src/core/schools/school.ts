/**
 * A school is a solving method as data: ordered stages, each with a goal and one technique. Nothing
 * here is code for one puzzle. Layers are named by their part in the method: `base` is the layer of
 * the colour that the solver starts with, `last` the one opposite.
 */
import type { FaceLetter } from '../puzzle/directions'

export type Role = 'base' | 'last'

/**
 * home: in the right place, rightly oriented · placed: in the right place, twist ignored · faced:
 * in the layer with the layer's colour outward, whichever place it is · looks home: some place shows
 * what it shows when finished, so equal pieces may stand for each other · in shape: in some place of the
 * finished puzzle · settled: no piece, but all: exchanges even in every orbit and twists adding up to nothing.
 */
export type Must = 'home' | 'placed' | 'faced' | 'looks home' | 'in shape' | 'settled'

export interface Condition {
  readonly layer: Role
  readonly must: Must
  /** The pieces that it concerns, as indices; those of the layer if not given. */
  readonly pieces?: readonly number[]
}

/** A four-turn commutator with the slot that it fills and the working spot it fills it from. */
export interface Trigger {
  readonly turns: string
  readonly slot: string
  readonly spot: string
}

export type Technique =
  /** Bring pieces of the base layer home one by one by the shortest turns. */
  | { readonly kind: 'gather'; readonly must: 'home' | 'faced' }
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
  /** The least number of turns, from the table of all states. */
  | { readonly kind: 'optimal' }
  /** The finished shape, whatever the colours. */
  | { readonly kind: 'shape' }
  /** Odd and even settled, or the pieces of one orbit brought home three at a time. */
  | { readonly kind: 'sums' }
  | { readonly kind: 'cycles'; readonly orbit: number }

export interface Stage {
  readonly id: string
  readonly name: string
  /** What is done when the lantern is lit. `{base}` and `{last}` stand for the colours. */
  readonly aim: string
  /** Where the base layer is held. */
  readonly base: FaceLetter
  readonly goal: readonly Condition[]
  readonly technique: Technique
  /** Present if the stage belongs to some variants only: option id to choice id. */
  readonly when?: Readonly<Record<string, string>>
}

export interface SchoolOption {
  readonly id: string
  readonly name: string
  /** The first choice is the default. */
  readonly choices: readonly { readonly id: string; readonly name: string }[]
}

export interface School {
  readonly id: string
  readonly name: string
  /** One or two sentences: what it asks of the solver. */
  readonly character: string
  /** Ids of the puzzles that it is taught for. */
  readonly puzzles: readonly string[]
  readonly options: readonly SchoolOption[]
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
