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

/** An address of this program, as it may be gone to; undefined for any other. */
export function ownAddress(text: string): string | undefined {
  // A browser reads `//name` and `/\name` as another site.
  return /^\/(?![/\\])/.test(text) && !plainProblem(text) ? text : undefined
}
