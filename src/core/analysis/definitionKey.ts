/** How what is derived beforehand is found. */
import { canonicalText } from '../canonical'
import type { PuzzleDefinition } from '../puzzle/definition'

/** A short name for everything that a definition says but its id and name (FNV-1a, 32 bits). */
export function definitionKey(definition: PuzzleDefinition): string {
  const { mechanism, solid, glue, faces, colours } = definition
  const text = canonicalText([mechanism, solid, glue, faces, colours.map(({ id }) => id)])
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++)
    hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0
  return `${hash.toString(16)}-${text.length}`
}
