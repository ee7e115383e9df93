'use client'

import type { ReactNode } from 'react'
import { learnTables, type DerivedTables } from '@/core/analysis/learnedTables'
import { learnDefinitions } from '@/core/catalog'
import { learnSchools, type OwnSchool } from '@/core/schools/ownSchools'
import type { PuzzleDefinition } from '@/core/puzzle/definition'

/** Makes puzzles and schools of the solver's own known to the page, before anything in it asks for them. */
export function OwnPuzzles({
  definitions,
  tables,
  schools,
  children,
}: {
  definitions: readonly PuzzleDefinition[]
  /** What is derived of the first of them, once a process of the server has worked it out. */
  tables?: DerivedTables | undefined
  schools: readonly OwnSchool[]
  children: ReactNode
}) {
  // Not an effect: what is drawn inside needs them now, and learning one again changes nothing.
  learnDefinitions(definitions)
  if (tables) learnTables(definitions[0], tables)
  learnSchools(schools)
  return children
}
