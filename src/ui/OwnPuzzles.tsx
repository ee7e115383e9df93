'use client'

import type { ReactNode } from 'react'
import { learnDefinitions } from '@/core/catalog'
import type { PuzzleDefinition } from '@/core/puzzle/definition'

/** Makes puzzles of the solver's own known to the page, before anything in it asks for them. */
export function OwnPuzzles({
  definitions,
  children,
}: {
  definitions: readonly PuzzleDefinition[]
  children: ReactNode
}) {
  // Not an effect: what is drawn inside needs them now, and learning one again changes nothing.
  learnDefinitions(definitions)
  return children
}
