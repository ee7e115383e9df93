import type { ReactNode } from 'react'
import { ownPuzzles } from '@/server/ownPuzzles'
import { defaultProfile } from '@/server/profiles'
import { OwnPuzzles } from '@/ui/OwnPuzzles'

/** A screen that may show puzzles of the solver's own. */
export async function WithOwnPuzzles({ children }: { children: ReactNode }) {
  return <OwnPuzzles definitions={await ownPuzzles(await defaultProfile())}>{children}</OwnPuzzles>
}
