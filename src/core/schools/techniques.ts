/**
 * Ways of working, one entry each: what a school may say of it, with the schema of a school file and the type that
 * the program reads. How each works on a puzzle stands in `coach/techniques/`.
 */
import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  type AnySchema,
  type ObjectSchema,
} from 'yup'
import type { FaceLetter } from '../puzzle/directions'
import type { Vector } from '../rotation'
import type { Left, Read, Typed } from '../typed'
import type { Selection } from './school'

export const unknownField = '${path} has a field that is not known: ${unknown}'

type Field<T> = Typed<T> & { readonly schema: AnySchema }

const field = <T>(schema: AnySchema): Field<T> => ({ schema: schema.required() })

/** The same where it may be left out. */
export const maybe = <T>({ schema }: Field<T>): Field<T> & Left<T> => ({
  schema: lazy((value: unknown) =>
    value === undefined ? mixed() : schema,
  ) as unknown as AnySchema,
  isOptional: true,
})

const oneOf = <const T extends string>(...values: readonly T[]): Field<T> =>
  field<T>(mixed<T>().oneOf(values))
const flag = field<boolean>(boolean())
export const text = (most: number) => string().min(1).max(most)
/** A few letters: a turn, a spot. */
const short = field<string>(text(4))
const row = field<string>(text(200))
const rows = field<readonly string[]>(array().of(text(200).required()).min(1).max(20))
const shortRows = field<readonly string[]>(array().of(text(4).required()).min(1).max(12))
const times = (most: number) => field<number>(number().integer().min(1).max(most))

/** Layers of a smaller box. */
const sizes = () => array().of(number().integer().min(1).max(7).required()).length(3)
const caps = () => mixed().oneOf([1, 2, 3, 4, 5, 'last'])
const someOf = (values: readonly string[]) =>
  array()
    .of(
      mixed()
        .oneOf([...values])
        .required(),
    )
    .min(1)
    .max(3)

const selectionOf = (as: AnySchema, cap: AnySchema = caps()): Field<Selection> => ({
  schema: lazy((given: unknown) =>
    given === undefined
      ? mixed().required()
      : object({
          as,
          half: number().integer().min(0).max(1),
          kinds: array().of(text(40).required()).min(1).max(12),
          layers: someOf(['base', 'last', 'middle']),
          box: number().integer().min(0).max(3),
          columns: someOf(['corner', 'side', 'axis']),
          circle: number().integer().min(1).max(6),
          cap,
          but: lazy((value: unknown) => (value === undefined ? mixed() : selection.schema)),
        }).noUnknown(unknownField),
  ) as unknown as AnySchema,
})

export const selection = selectionOf(sizes())
/** Of pieces of a smaller box. */
const joinedSelection = selectionOf(sizes().required())
/** Of the pieces of one cap. */
const capSelection = selectionOf(sizes(), caps().required())

/** A four-turn commutator with the slot that it fills and the working spot it fills it from. */
export interface Trigger {
  readonly turns: string
  readonly slot: string
  readonly spot: string
}

const triggers = field<readonly Trigger[]>(
  array()
    .of(
      object({
        turns: text(200).required(),
        slot: text(4).required(),
        spot: text(4).required(),
      }).noUnknown(unknownField),
    )
    .min(1)
    .max(4),
)

const TECHNIQUES = {
  /** Bring pieces of the base layer home one by one by the shortest turns. */
  gather: { must: oneOf('home', 'faced'), select: maybe(selection) },
  /** Bring each piece to a working spot and repeat a trigger until it sits right. */
  trigger: { triggers },
  /**
   * Turn the last layer, count the placed pieces, decide. `cycle` moves three places of the last
   * layer and leaves the one at `held`; without it the program derives one.
   */
  count: { held: short, cycle: maybe(row) },
  /** Repeat a trigger at one spot, turn the last layer, and so on; the rest comes back by itself. */
  twist: { trigger: row, spot: short },
  /**
   * Recognise one of a few cases and do its algorithm. The cases are enumerated and the algorithms
   * found by the program; `before` and `after`: a turn of the last layer may be needed there.
   */
  case: {
    reading: oneOf('directions', 'bars'),
    // No turn at all is a hold too.
    holds: field<readonly string[]>(array().of(string().max(200).defined()).min(1).max(24)),
    before: flag,
    after: flag,
    layers: field<readonly FaceLetter[]>(array().of(text(1).required()).min(1).max(6)),
  },
  /** Pieces that only turn in their places, each by one turn of a layer that carries it. */
  spin: { select: selection, layers: shortRows },
  /**
   * Pieces one by one: a hold about the base axis, a turn of the last layer, then one of these sequences,
   * some runs of it. A piece that no sequence brings home is lifted out by one.
   */
  insert: { select: selection, sequences: rows, fetch: short, runs: times(6) },
  /**
   * Sequences known by heart, each from a hold about the base axis and after a turn of the last layer, until
   * the goal is met, at most `times` of them. Without any the program derives one a case.
   */
  known: { select: selection, sequences: maybe(rows), fetch: short, times: times(3) },
  /**
   * Three pieces of one orbit at a time by a sequence that moves these and what no goal asks for yet: set up,
   * do, undo. From any hold about the base axis, forwards or back; first a turn of `turn` where the count of
   * odd and even asks for it. Without sequences those that are derived for the
   * orbit, which leave everything else alone.
   */
  series: { select: selection, sequences: maybe(rows), turn: maybe(short) },
  /**
   * In a box whose sides only half-turn: sequences that exchange pieces of one of the boxes that lie in each
   * other, each from a hold about the long axis and after turns of the box's own two layers. They are made with
   * the right side as the work side: after an odd number of its half turns all other boxes are half done there,
   * so they are put in a row until the number is even.
   */
  swap: { select: selection, sequences: rows },
  /**
   * Parts of the pieces of a smaller box brought together: at each step turns of outer layers, then one of these
   * sequences or its mirror image, from any hold, whichever brings the most together for the fewest turns.
   */
  join: { select: joinedSelection, sequences: rows },
  /**
   * Pieces that may stand for their equals, some at a time: one turn, two turns and both back, or three and another
   * and all back, set up by a few and undone, whichever brings the most home for its turns. What no goal asks for
   * yet may move.
   */
  commutator: { select: selection },
  /**
   * A cap of a capped core, in blocks: a corner with its edge, two by two, two by three, then the bar that is left;
   * each lifted in from another cap while the block so far is turned out of the way.
   */
  blocks: { select: capSelection },
  /** What stages of another school do, on the smaller box of that size that all is joined into. */
  as: {
    size: field<Vector>(sizes()),
    school: field<string>(text(40)),
    stages: field<readonly string[]>(array().of(text(40).required()).min(1).max(20)),
  },
  /**
   * What turns of the smaller box can never mend, where it is there: by one of these sequences, from a hold about
   * the base axis and after a turn of the opposite layer.
   */
  remedy: { select: joinedSelection, sequences: rows, fetch: short },
  /** An orbit whose arrangements are few enough to be listed, all its pieces together; some others stay. */
  small: { select: selection, keeping: maybe(selection) },
  /** Whatever is left, piece by piece, as the universal school does it. */
  rest: {},
  /** The least number of turns, from the table of all states. */
  optimal: {},
  /** The shape comes back, whatever the colours; what follows is done in shape. */
  reshape: {},
  /** The finished shape, whatever the colours: the first stage of the universal school. */
  shape: {},
  /** Odd and even settled, or the pieces of one orbit brought home three at a time. */
  sums: {},
  cycles: { orbit: field<number>(number().integer().min(0)) },
} as const

type Kind = keyof typeof TECHNIQUES

export type Technique = {
  [K in Kind]: Read<(typeof TECHNIQUES)[K]> & { readonly kind: K }
}[Kind]

/** What no file is written in: what is derived for one puzzle, or told in words of its own. */
const NOT_IN_FILES = new Set<Kind>([
  'trigger',
  'count',
  'case',
  'optimal',
  'shape',
  'sums',
  'cycles',
])

export const FILE_TECHNIQUES = (Object.keys(TECHNIQUES) as Kind[]).filter(
  (kind) => !NOT_IN_FILES.has(kind),
)

export function techniqueSchema(kind: Kind): ObjectSchema<object> {
  const fields: Readonly<Record<string, Field<unknown>>> = TECHNIQUES[kind]
  return object({
    kind: string().required(),
    ...Object.fromEntries(Object.entries(fields).map(([name, { schema }]) => [name, schema])),
  }).noUnknown(unknownField)
}
