import type { ReactNode } from 'react'
import { Button } from './Button'

/** A quiet button with a sign for a word; `title` is the word, `label` says of what. */
export function IconButton({
  title,
  label,
  onClick,
  children,
}: {
  title: string
  label: string
  onClick: () => void
  children: ReactNode
}) {
  return (
    <Button weight="quiet" className="px-1.5" onClick={onClick} aria-label={label} title={title}>
      {children}
    </Button>
  )
}
