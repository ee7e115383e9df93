import type { Metadata, Viewport } from 'next'
import type { ReactNode } from 'react'
import { Toaster } from 'sonner'
import { GoAnywhere } from '@/features/go/GoAnywhere'
import { Frame } from '@/ui/Frame'
import { latestSession } from '@/server/benchSessions'
import { defaultProfile, readSettings } from '@/server/profiles'
import './globals.css'

export const metadata: Metadata = {
  title: { default: 'Merry Lantern', template: '%s · Merry Lantern' },
  description: 'A workbench for people who solve non-standard twisty puzzles.',
}

export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

// Every page shows what is stored now.
export const dynamic = 'force-dynamic'

export default async function RootLayout({ children }: { children: ReactNode }) {
  const profileId = await defaultProfile()
  const [settings, session] = await Promise.all([readSettings(profileId), latestSession(profileId)])
  return (
    <html lang="en" data-theme={settings.theme}>
      <body>
        <Frame benchHref={session && `/bench/${session.id}`}>{children}</Frame>
        <GoAnywhere />
        <Toaster position="bottom-center" theme={settings.theme === 'dusk' ? 'dark' : 'light'} />
      </body>
    </html>
  )
}
