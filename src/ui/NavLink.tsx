'use client'

import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { classes } from './classes'

export function NavLink({ href, children }: { href: string; children: string }) {
  const path = usePathname()
  const isHere = path.split('/')[1] === href.split('/')[1]
  return (
    <Link
      href={href}
      aria-current={isHere ? 'page' : undefined}
      className={classes(
        'flex items-center border-b-2 px-2 text-sm sm:px-3',
        isHere ? 'border-amber text-ink' : 'border-transparent text-soft hover:text-ink',
      )}
    >
      {children}
    </Link>
  )
}
