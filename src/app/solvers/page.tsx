import { formatDistanceToNow } from 'date-fns'
import type { Metadata } from 'next'
import { SolversScreen } from '@/features/solvers/SolversScreen'
import { ownAddress } from '@/server/address'
import { solvers } from '@/server/profiles'
import { solverHere } from '@/server/solver'

export const metadata: Metadata = { title: 'Solvers' }

export default async function SolversPage({
  searchParams,
}: {
  searchParams: Promise<{ then?: string | string[] }>
}) {
  const [{ then }, here] = await Promise.all([searchParams, solverHere()])
  return (
    <SolversScreen
      solvers={(await solvers()).map(({ lastSolvedAt, ...solver }) => ({
        ...solver,
        lastSolved: lastSolvedAt && formatDistanceToNow(lastSolvedAt, { addSuffix: true }),
      }))}
      here={here?.id}
      then={ownAddress([then ?? ''].flat()[0]) ?? '/shelf'}
    />
  )
}
