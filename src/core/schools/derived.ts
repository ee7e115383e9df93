/**
 * What the program has derived from the stages' definitions, kept with it so that no one waits: the
 * cases and cycles. Written by `npm run derive`; a test derives everything again and compares.
 */
import type { PuzzleDefinition } from '../puzzle/definition'
import cube2 from './derived/cube-2.json'
import tetra3 from './derived/tetra-3.json'
import { mechanismKey } from './fits'

export interface DerivedStage {
  readonly cases?: readonly { readonly turns: string; readonly states: number }[]
  readonly cycle?: string
}

type DerivedFile = Readonly<Record<string, DerivedStage>>

/** By mechanism. */
const files: Readonly<Record<string, DerivedFile>> = {
  'box-2x2x2': cube2,
  tetrahedron: tetra3,
}

export const derivedStage = (definition: PuzzleDefinition, key: string): DerivedStage | undefined =>
  files[mechanismKey(definition)]?.[key]
