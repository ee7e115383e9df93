import Link from 'next/link'
import type { ComponentProps } from 'react'
import { classes } from './classes'

/** attend: the thing to do now · plain: anything else · quiet: in passing · wrong: it takes away */
export type Weight = 'attend' | 'plain' | 'quiet' | 'wrong'

const LOOK: Record<Weight, string> = {
  attend: 'bg-amber text-on-amber border-amber font-bold hover:brightness-110',
  plain: 'bg-raised text-ink border-line hover:border-soft',
  quiet: 'bg-transparent text-soft border-transparent hover:text-ink hover:bg-raised',
  wrong: 'bg-transparent text-rose border-rose hover:bg-raised',
}

const shape =
  'inline-flex items-center justify-center gap-2 rounded-md border px-3 min-h-9 text-sm whitespace-nowrap transition-colors disabled:opacity-45 disabled:cursor-not-allowed'

interface Weighted {
  weight?: Weight
}

export function Button({
  weight = 'plain',
  className,
  ...rest
}: ComponentProps<'button'> & Weighted) {
  return <button type="button" className={classes(shape, LOOK[weight], className)} {...rest} />
}

export function LinkButton({
  weight = 'plain',
  className,
  ...rest
}: ComponentProps<typeof Link> & Weighted) {
  return <Link className={classes(shape, LOOK[weight], className)} {...rest} />
}
