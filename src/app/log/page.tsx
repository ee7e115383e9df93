import type { Metadata } from 'next'
import { plainProblem } from '@/core/plain'
import { LogScreen } from '@/features/log/LogScreen'
import { benchesLeftOff } from '@/server/leftOff'
import { lookAtLog } from '@/server/log'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Log' }

/** The latest; older ones are in the backup. */
const MOST_LEFT_OFF = 100

type Query = Record<string, string | string[] | undefined>

export default async function LogPage({ searchParams }: { searchParams: Promise<Query> }) {
  const query = await searchParams
  const one = (name: string) => {
    const value = query[name]
    return typeof value === 'string' && value !== '' && !plainProblem(value)
      ? value.slice(0, 80)
      : undefined
  }
  const filter = { puzzle: one('puzzle'), solver: one('solver'), school: one('school') }
  const page = Number(one('page') ?? 1)
  const profileId = await solverId()
  const [view, leftOff] = await Promise.all([
    lookAtLog(profileId, filter, Number.isInteger(page) ? page : 1),
    benchesLeftOff(profileId, MOST_LEFT_OFF),
  ])
  return <LogScreen view={view} filter={filter} leftOff={leftOff} />
}
