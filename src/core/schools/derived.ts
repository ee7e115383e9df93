/**
 * What the program has derived from the stages' definitions, kept with it so that no one waits: the
 * cases and cycles. Written by `npm run derive`; a test derives everything again and compares.
 */
import cube2 from './derived/cube-2.json'

export interface DerivedStage {
  readonly cases?: readonly { readonly turns: string; readonly states: number }[]
  readonly cycle?: string
}

type DerivedFile = Readonly<Record<string, DerivedStage>>

const files: Readonly<Record<string, DerivedFile>> = { 'cube-2': cube2 }

export const derivedStage = (puzzleId: string, key: string): DerivedStage | undefined =>
  files[puzzleId]?.[key]
