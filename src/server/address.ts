import { plainProblem } from '../core/plain'

/** A part of an address, or undefined where it is none that can be read. */
export function decoded(part: string): string | undefined {
  try {
    const text = decodeURIComponent(part)
    return plainProblem(text) ? undefined : text
  } catch {
    return undefined
  }
}
