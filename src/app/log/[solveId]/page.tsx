import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { SolveScreen } from '@/features/log/SolveScreen'
import { settingsFor } from '@/core/settings'
import { findCopy } from '@/server/copies'
import { puzzleOf, replayed } from '@/server/damage'
import { isId } from '@/server/id'
import { DamagedPage } from '@/app/DamagedPage'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { readSettings } from '@/server/profiles'
import { solverId } from '@/server/solver'
import { findSolve } from '@/server/solves'

export const metadata: Metadata = { title: 'Solve' }

export default async function SolvePage({ params }: { params: Promise<{ solveId: string }> }) {
  const { solveId } = await params
  if (!isId(solveId)) notFound()
  const profileId = await solverId()
  const [solve, settings] = await Promise.all([
    findSolve(profileId, solveId),
    readSettings(profileId),
  ])
  if (!solve) notFound()
  const copy = solve.copyId ? await findCopy(profileId, solve.copyId) : undefined
  const played = replayed(solve)
  if (!played.ok) return <DamagedPage what="A solve" problem={played.problem} />
  const scheme = copy && puzzleOf(copy).ok ? copy.scheme : played.value.definition.colours
  return (
    <WithOwnPuzzles puzzleId={solve.puzzleId}>
      <SolveScreen
        key={solve.id}
        solve={solve}
        scheme={scheme}
        settings={settingsFor(settings, solve.puzzleId)}
      />
    </WithOwnPuzzles>
  )
}
