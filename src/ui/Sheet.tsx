'use client'

import { X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'
import { classes } from './classes'

/** A dialog over the page. */
export function Sheet({
  open,
  onOpenChange,
  title,
  description,
  wide = false,
  children,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  description?: string
  wide?: boolean
  children: ReactNode
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content
          aria-describedby={description ? undefined : ''}
          className={classes(
            'fixed left-1/2 top-1/2 z-50 max-h-[92dvh] w-[min(94vw,var(--width))] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-lg border border-line bg-surface p-5 shadow-2xl',
            wide ? '[--width:62rem]' : '[--width:34rem]',
          )}
        >
          <div className="mb-3 flex items-start gap-3">
            <div className="grow">
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {description && (
                <Dialog.Description className="text-sm text-soft">{description}</Dialog.Description>
              )}
            </div>
            <Dialog.Close
              aria-label="Close"
              className="grid size-9 place-items-center rounded-md text-soft hover:bg-raised hover:text-ink"
            >
              <X size={18} aria-hidden />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
