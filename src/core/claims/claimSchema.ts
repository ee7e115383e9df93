/** What a claim must look like before it is stored. */
import { array, lazy, mixed, number, object, string, type Schema } from 'yup'
import { DIRECTIONS } from '../puzzle/directions'
import type { ClaimKind } from './claim'

const id = () => string().max(20)
const kind = string().required()
const side = () =>
  mixed()
    .oneOf(DIRECTIONS.map(({ name }) => name))
    .required()
const lies = () => mixed().oneOf(['home', 'turned', 'on']).required()
const count = () => number().integer().min(0).max(500)

const KINDS: Readonly<Record<ClaimKind, Schema>> = {
  pieceAt: object({ kind, piece: id().required(), place: id() }).noUnknown(),
  goesTo: object({
    ...{ kind, piece: id().required(), place: id().required(), lies: lies() },
    line: count().min(1),
    isOwed: mixed().oneOf([true]),
  }).noUnknown(),
  turnsThere: object({ kind, piece: id().required(), was: lies(), lies: lies() }).noUnknown(),
  takenOut: object({ kind, piece: id().required() }).noUnknown(),
  shows: object({
    ...{ kind, piece: id().required() },
    looks: array()
      .of(
        object({
          colour: string().max(40).required(),
          toward: array().of(side()).min(1).max(3).required(),
        }).noUnknown(),
      )
      .max(6)
      .required(),
  }).noUnknown(),
  sideHeld: object({ kind, side: side(), at: side() }).noUnknown(),
  holdBy: object({
    kind,
    turns: array().of(string().max(12).required()).max(12).required(),
  }).noUnknown(),
  afterTurns: object({ kind, count: count().required() }).noUnknown(),
  text: object({ kind, text: string().max(2000).required() }).noUnknown(),
}

const claimSchema = lazy((value: unknown) => {
  const { kind: named } = Object(value) as { kind?: unknown }
  return typeof named === 'string' && Object.hasOwn(KINDS, named)
    ? KINDS[named as ClaimKind]
    : mixed()
        .nullable()
        .test('kind', 'This kind of claim is not known.', () => false)
})

/** Claims; or a finished sentence, as programs stored them that had no claims. */
export const saidSchema = (isRequired = false) =>
  lazy((value: unknown) => {
    if (typeof value === 'string') return string().max(2000)
    const claims = array()
      .of(claimSchema as unknown as Schema)
      .max(40)
    return isRequired ? claims.required() : claims
  }) as unknown as Schema
