/** What a claim must look like before it is stored. */
import { array, lazy, mixed, object, string, type Schema } from 'yup'
import { CLAIMS, fieldsOf, type ClaimKind } from './claim'

const schemaOf = (kind: ClaimKind): Schema =>
  object({
    kind: string().required(),
    ...Object.fromEntries(
      Object.entries(fieldsOf(kind)).map(([name, { schema }]) => [name, schema]),
    ),
  }).noUnknown()

const KINDS = new Map(
  (Object.keys(CLAIMS) as ClaimKind[]).map((kind) => [kind as string, schemaOf(kind)]),
)

const UNKNOWN = mixed()
  .nullable()
  .test('kind', 'This kind of claim is not known.', () => false)

const claimSchema = lazy((value: unknown) => {
  const { kind } = Object(value) as { kind?: unknown }
  return (typeof kind === 'string' ? KINDS.get(kind) : undefined) ?? UNKNOWN
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
