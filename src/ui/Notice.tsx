import { CircleAlert, Lamp, ShieldCheck } from 'lucide-react'
import type { ReactNode } from 'react'
import { classes } from './classes'

/** A sentence to the solver: something to attend to, something wrong, or all is well. */
export function Notice({
  kind,
  children,
}: {
  kind: 'attend' | 'wrong' | 'safe'
  children: ReactNode
}) {
  const Icon = { attend: Lamp, wrong: CircleAlert, safe: ShieldCheck }[kind]
  return (
    <div
      role={kind === 'wrong' ? 'alert' : 'status'}
      className={classes(
        'flex gap-2 rounded-md border px-3 py-2 text-sm bg-surface',
        kind === 'attend' && 'border-amber',
        kind === 'wrong' && 'border-rose',
        kind === 'safe' && 'border-teal',
      )}
    >
      <Icon
        aria-hidden
        size={18}
        className={classes(
          'mt-0.5 shrink-0',
          kind === 'attend' && 'text-amber',
          kind === 'wrong' && 'text-rose',
          kind === 'safe' && 'text-teal',
        )}
      />
      <div className="min-w-0 grow">{children}</div>
    </div>
  )
}
