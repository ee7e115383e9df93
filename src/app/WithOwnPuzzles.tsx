import type { ReactNode } from 'react'
import { ownPuzzles } from '@/server/ownPuzzles'
import { keptSchools } from '@/server/ownSchools'
import { defaultProfile } from '@/server/profiles'
import { OwnPuzzles } from '@/ui/OwnPuzzles'

/** A screen that may show puzzles and schools of the solver's own. */
export async function WithOwnPuzzles({ children }: { children: ReactNode }) {
  const profileId = await defaultProfile()
  return (
    <OwnPuzzles definitions={await ownPuzzles(profileId)} schools={await keptSchools(profileId)}>
      {children}
    </OwnPuzzles>
  )
}
