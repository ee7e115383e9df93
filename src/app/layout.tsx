import type { Metadata, Viewport } from 'next'
import type { ReactNode } from 'react'
import { headers } from 'next/headers'
import { Toaster } from 'sonner'
import { DEFAULT_SETTINGS, type Settings } from '@/core/settings'
import { GoAnywhere } from '@/features/go/GoAnywhere'
import { SolverMenu } from '@/features/solvers/SolverMenu'
import { Frame } from '@/ui/Frame'
import { latestSession, type BenchSession } from '@/server/benchSessions'
import { isAway } from '@/server/pool'
import { NONCE_HEADER } from '@/server/headers'
import { StyleNonce } from '@/ui/StyleNonce'
import type { Profile } from '@/server/asking'
import { readSettings } from '@/server/profiles'
import { solverHere } from '@/server/solver'
import './globals.css'

export const metadata: Metadata = {
  title: { default: 'Merry Lantern', template: '%s · Merry Lantern' },
  description: 'A workbench for people who solve non-standard twisty puzzles.',
}

export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

// Every page shows what is stored now.
export const dynamic = 'force-dynamic'

const TOASTS = { dusk: 'dark', daylight: 'light', system: 'system' } as const

export default async function RootLayout({ children }: { children: ReactNode }) {
  const [{ settings, session, solver }, asked] = await Promise.all([standing(), headers()])
  return (
    <html lang="en" data-theme={settings.theme}>
      <body>
        <StyleNonce nonce={asked.get(NONCE_HEADER) ?? undefined} />
        <Frame
          benchHref={session && `/bench/${session.id}`}
          solver={solver && <SolverMenu key={solver.id} solver={solver} />}
        >
          {children}
        </Frame>
        <GoAnywhere />
        <Toaster position="bottom-center" theme={TOASTS[settings.theme]} />
      </body>
    </html>
  )
}

/** While the database is away the frame stands all the same: the page in it says what is the matter. */
async function standing(): Promise<{
  readonly settings: Settings
  readonly session?: BenchSession
  readonly solver?: Pick<Profile, 'id' | 'nickname'>
}> {
  try {
    const found = await solverHere()
    if (!found) return { settings: DEFAULT_SETTINGS }
    const { id, nickname } = found
    const [settings, session] = await Promise.all([readSettings(id), latestSession(id)])
    return { settings, session, solver: { id, nickname } }
  } catch (error) {
    if (!isAway(error)) throw error
    return { settings: DEFAULT_SETTINGS }
  }
}
