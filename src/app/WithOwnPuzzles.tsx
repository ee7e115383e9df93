import type { ReactNode } from 'react'
import { CATALOG_IDS, definitionById } from '@/core/catalog'
import { splitId } from '@/core/catalog/setting'
import { keptSchools } from '@/server/ownSchools'
import { solverId } from '@/server/solver'
import { tablesOf } from '@/server/tables'
import { OwnPuzzles } from '@/ui/OwnPuzzles'

/** A screen that shows a puzzle, which may be of the solver's own, and may have schools of the solver's own. */
export async function WithOwnPuzzles({
  puzzleId,
  children,
}: {
  puzzleId: string
  children: ReactNode
}) {
  const { file } = splitId(puzzleId)
  const definition = CATALOG_IDS.includes(file) ? undefined : definitionById(file)
  const profileId = await solverId()
  const [schools, tables] = await Promise.all([
    keptSchools(profileId, puzzleId),
    definition && tablesOf(profileId, file),
  ])
  return (
    <OwnPuzzles definitions={definition ? [definition] : []} tables={tables} schools={schools}>
      {children}
    </OwnPuzzles>
  )
}
