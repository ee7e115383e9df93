/** Fields that are written down once: with the schema that reads them and the type of what is read. */
import type { ISchema } from 'yup'

export interface Typed<T> {
  readonly schema: ISchema<unknown>
  /** Never there: it carries the type. */
  readonly type?: T
}

export interface Left<T> extends Typed<T> {
  /** It may be left out. */
  readonly isOptional: true
}

type TypeOf<F> = F extends Typed<infer T> ? T : never
type Flat<T> = { readonly [K in keyof T]: T[K] }

/** What an object with these fields holds. */
export type Read<F> = Flat<
  {
    readonly [K in keyof F as F[K] extends Left<unknown> ? never : K]: TypeOf<F[K]>
  } & {
    readonly [K in keyof F as F[K] extends Left<unknown> ? K : never]?: TypeOf<F[K]>
  }
>
