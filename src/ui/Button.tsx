import Link from 'next/link'
import type { ComponentProps } from 'react'
import { classes } from './classes'

/** attend: the thing to do now · plain: anything else · quiet: in passing · wrong: it takes away */
export type Weight = 'attend' | 'plain' | 'quiet' | 'wrong'

/** Written out in globals.css: a page has many buttons. */
const LOOK: Record<Weight, string> = {
  attend: 'button-attend',
  plain: 'button-plain',
  quiet: 'button-quiet',
  wrong: 'button-wrong',
}

interface Weighted {
  weight?: Weight
}

export function Button({
  weight = 'plain',
  className,
  ...rest
}: ComponentProps<'button'> & Weighted) {
  return <button type="button" className={classes('button', LOOK[weight], className)} {...rest} />
}

export function LinkButton({
  weight = 'plain',
  className,
  ...rest
}: ComponentProps<typeof Link> & Weighted) {
  return <Link className={classes('button', LOOK[weight], className)} {...rest} />
}
