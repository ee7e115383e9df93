/** What a claim can hold: each field says what it is, so that claims are typed, read and renamed by one table. */
import { array, mixed, number, object, string, type Schema } from 'yup'
import type { Look } from '../analysis/who'
import { DIRECTIONS, type Direction } from '../puzzle/directions'
import type { Vector } from '../rotation'
import type { Left, Typed } from '../typed'

export type PieceId = string

/**
 * What the names in a field mean: pieces, places (by the piece whose home it is), pieces or places of the smaller box
 * that the claim is `as`, turns, colours.
 */
export type Naming = 'piece' | 'place' | 'whole' | 'turn' | 'colour'

export interface Field<T> extends Typed<T> {
  readonly schema: Schema
  readonly naming?: Naming
  /** Whether it holds several names. */
  readonly isList?: boolean
}

const field = <T>(schema: Schema, naming?: Naming): Field<T> => ({
  schema: schema.required(),
  naming,
})

const names = (of: Schema, naming: Naming): Field<readonly string[]> => ({
  schema: array().of(of).min(1).max(MOST).required(),
  naming,
  isList: true,
})

/** The same where there may be none. */
export const orNone = (given: Field<readonly string[]>): Field<readonly string[]> => ({
  ...given,
  schema: (given.schema as ReturnType<typeof array>).min(0),
})

/** The same of just two. */
export const two = (given: Field<readonly string[]>): Field<readonly string[]> => ({
  ...given,
  schema: (given.schema as ReturnType<typeof array>).length(2),
})

export const maybe = <T>(given: Field<T>): Field<T> & Left<T> => ({
  ...given,
  schema: given.schema.optional(),
  isOptional: true,
})

/** No puzzle has more pieces, no step more turns. */
const MOST = 500

const id = () => string().max(24).required()
const side = () => mixed<Direction['name']>().oneOf(DIRECTIONS.map(({ name }) => name))

export const piece = field<PieceId>(id(), 'piece')
export const pieces = names(id(), 'piece')
export const place = field<PieceId>(id(), 'place')
export const places = names(id(), 'place')
export const whole = field<PieceId>(id(), 'whole')
export const wholes = names(id(), 'whole')
export const turn = field<string>(string().max(12), 'turn')
export const turns = names(string().max(12).required(), 'turn')
export const colour = field<string>(string().max(40), 'colour')
export const direction = field<Direction['name']>(side())
export const directions = field<readonly Direction['name'][]>(array().of(side().required()).max(6))
export const count = field<number>(number().integer().min(0).max(MOST))
export const counts = field<readonly number[]>(
  array().of(number().integer().min(0).max(MOST).required()).max(24),
)
/** Without a bound: how often until all is back. */
const unbounded = () => number().integer().min(0).max(Number.MAX_SAFE_INTEGER)
export const amount = field<number>(unbounded())
export const amounts = field<readonly number[]>(array().of(unbounded().required()).max(40))
export const flag = field<true>(mixed<true>().oneOf([true]))
export const text = field<string>(string().max(2000))
/** What pieces are called by what they are: 'edge', 'corner'. */
export const kinds = field<readonly string[]>(array().of(string().max(60).required()).max(40))
/** Along x, y and z. */
export const size = field<Vector>(array().of(number().integer().min(1).max(9).required()).length(3))
export const oneOf = <T extends string>(...values: readonly T[]): Field<T> =>
  field<T>(mixed<T>().oneOf(values))
export const looks = field<readonly Look[]>(
  array()
    .of(
      object({
        colour: string().max(40).required(),
        toward: array().of(side().required()).min(1).max(3).required(),
      }).noUnknown(),
    )
    .max(6),
)
