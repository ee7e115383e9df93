import Link from 'next/link'
import type { ReactNode } from 'react'
import { LanternMark } from './LanternMark'
import { NavLink } from './NavLink'

/** The frame of every screen: the name, the way round, the page. */
export function Frame({
  benchHref,
  solver,
  children,
}: {
  benchHref?: string
  /** Who is solving, and the way to another. */
  solver?: ReactNode
  children: ReactNode
}) {
  return (
    <div className="flex min-h-dvh flex-col">
      <a
        href="#page"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:m-2 focus:rounded focus:bg-raised focus:p-2"
      >
        To the page
      </a>
      <header className="flex items-center gap-1 border-b border-line bg-surface px-3 sm:gap-3 sm:px-5">
        <Link href="/shelf" className="flex items-center gap-2 py-2 pr-2 sm:pr-6">
          <span className="text-amber">
            <LanternMark lit size={18} />
          </span>
          <span className="font-display text-lg font-semibold max-sm:sr-only">Merry Lantern</span>
        </Link>
        <nav aria-label="Screens" className="flex min-w-0 self-stretch overflow-x-auto">
          <NavLink href="/shelf">Shelf</NavLink>
          <NavLink href="/anatomy">Anatomy</NavLink>
          <NavLink href="/schools">Schools</NavLink>
          <NavLink href="/algorithms">Algorithms</NavLink>
          {benchHref && <NavLink href={benchHref}>Bench</NavLink>}
          <NavLink href="/log">Log</NavLink>
          <NavLink href="/settings">Settings</NavLink>
        </nav>
        {solver && <div className="ml-auto min-w-0 shrink-0">{solver}</div>}
      </header>
      <main id="page" className="flex grow flex-col">
        {children}
      </main>
    </div>
  )
}
