import type { Metadata } from 'next'
import { plainProblem } from '@/core/plain'
import { LogScreen } from '@/features/log/LogScreen'
import { lookAtLog } from '@/server/log'
import { solverId } from '@/server/solver'

export const metadata: Metadata = { title: 'Log' }

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
  const view = await lookAtLog(await solverId(), filter, Number.isInteger(page) ? page : 1)
  return <LogScreen view={view} filter={filter} />
}
