import type { Metadata } from 'next'
import { LogScreen } from '@/features/log/LogScreen'
import { WithOwnPuzzles } from '@/app/WithOwnPuzzles'
import { defaultProfile } from '@/server/profiles'
import { listSolves } from '@/server/solves'

export const metadata: Metadata = { title: 'Log' }

type Query = Record<string, string | string[] | undefined>

export default async function LogPage({ searchParams }: { searchParams: Promise<Query> }) {
  const query = await searchParams
  const one = (value: Query[string]) =>
    typeof value === 'string' && value !== '' ? value : undefined
  return (
    <WithOwnPuzzles>
      <LogScreen
        solves={await listSolves(await defaultProfile())}
        filter={{
          puzzle: one(query.puzzle),
          solver: one(query.solver),
          school: one(query.school),
        }}
      />
    </WithOwnPuzzles>
  )
}
