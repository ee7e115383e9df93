import type { Metadata, Viewport } from 'next'
import type { ReactNode } from 'react'
import { headers } from 'next/headers'
import { Toaster } from 'sonner'
import { DEFAULT_SETTINGS } from '@/core/settings'
import { GoAnywhere } from '@/features/go/GoAnywhere'
import { Frame } from '@/ui/Frame'
import { latestSession } from '@/server/benchSessions'
import { isAway } from '@/server/pool'
import { StyleNonce } from '@/ui/StyleNonce'
import { defaultProfile, readSettings } from '@/server/profiles'
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
  const [{ settings, session }, asked] = await Promise.all([standing(), headers()])
  return (
    <html lang="en" data-theme={settings.theme}>
      <body>
        <StyleNonce nonce={asked.get('x-nonce') ?? undefined} />
        <Frame benchHref={session && `/bench/${session.id}`}>{children}</Frame>
        <GoAnywhere />
        <Toaster position="bottom-center" theme={TOASTS[settings.theme]} />
      </body>
    </html>
  )
}

/** While the database is away the frame stands all the same: the page in it says what is the matter. */
async function standing() {
  try {
    const profileId = await defaultProfile()
    const [settings, session] = await Promise.all([
      readSettings(profileId),
      latestSession(profileId),
    ])
    return { settings, session }
  } catch (error) {
    if (!isAway(error)) throw error
    return { settings: DEFAULT_SETTINGS, session: undefined }
  }
}
