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

/** No site has it: where an address leads there, it leads to this program. */
const HERE = 'http://here.invalid'

/**
 * An address of this program, as a browser would read it; undefined for any other. It is parsed, not looked at: a
 * browser leaves out tabs and line ends, and takes `//name` and `/\name` for another site.
 */
export function ownAddress(text: string): string | undefined {
  if (plainProblem(text) || !text.startsWith('/')) return undefined
  try {
    const read = new URL(text, HERE)
    const address = read.pathname + read.search + read.hash
    // `/.//name` is a path here, and without the dot another site.
    return read.origin === HERE && !address.startsWith('//') ? address : undefined
  } catch {
    return undefined
  }
}
