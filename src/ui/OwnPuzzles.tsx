'use client'

import type { ReactNode } from 'react'
import { learnDefinitions } from '@/core/catalog'
import { learnSchools, type OwnSchool } from '@/core/schools/ownSchools'
import type { PuzzleDefinition } from '@/core/puzzle/definition'

/** Makes puzzles and schools of the solver's own known to the page, before anything in it asks for them. */
export function OwnPuzzles({
  definitions,
  schools,
  children,
}: {
  definitions: readonly PuzzleDefinition[]
  schools: readonly OwnSchool[]
  children: ReactNode
}) {
  // Not an effect: what is drawn inside needs them now, and learning one again changes nothing.
  learnDefinitions(definitions)
  learnSchools(schools)
  return children
}
