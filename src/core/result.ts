/**
 * Errors as values: a code for programs and a sentence for solvers. They cross the worker and the
 * HTTP boundary unchanged, so they are plain data.
 */
export interface Problem {
  readonly code: string
  /** One sentence a solver understands. */
  readonly sentence: string
  /** Character offset in the text that was read, where there is one. */
  readonly at?: number
  /** Path of the field that is wrong, where there is one. */
  readonly field?: string
  /** Other problems of the same file, where all were looked for. */
  readonly more?: readonly Problem[]
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem }

export const ok = <T>(value: T): Result<T> => ({ ok: true, value })

export const fail = (
  code: string,
  sentence: string,
  where: { at?: number; field?: string } = {},
): Result<never> => ({ ok: false, problem: { code, sentence, ...where } })

/** The value, or an exception that carries the sentence: for callers that checked before. */
export function must<T>(result: Result<T>): T {
  if (result.ok) return result.value
  throw new Error(result.problem.sentence)
}
