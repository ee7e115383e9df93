'use client'

import { useRef, type ReactNode } from 'react'
import { Button } from './Button'

/** A button that asks for a file; the same file can be chosen again. */
export function FileButton({
  label,
  accept,
  disabled,
  onChoose,
  children,
}: {
  /** The name of the field, for those who do not see the button. */
  label: string
  accept: string
  disabled?: boolean
  onChoose: (file: File) => void
  children: ReactNode
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button onClick={() => input.current?.click()} disabled={disabled}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        disabled={disabled}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [chosen] = event.target.files ?? []
          if (chosen) onChoose(chosen)
          event.target.value = ''
        }}
      />
    </>
  )
}
