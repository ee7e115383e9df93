'use client'

import { useId, type ComponentProps, type ReactNode } from 'react'
import { classes } from './classes'

const box =
  'w-full rounded-md border border-line bg-raised px-3 min-h-9 text-ink placeholder:text-soft'

interface Labelled {
  label: string
  hint?: ReactNode
  error?: string
}

function Frame({
  id,
  label,
  hint,
  error,
  children,
}: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="text-sm font-bold">
        {label}
      </label>
      {children}
      {hint && (
        <p id={`${id}-hint`} className="text-sm text-soft">
          {hint}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} role="alert" className="text-sm text-rose">
          {error}
        </p>
      )}
    </div>
  )
}

export function TextField({
  label,
  hint,
  error,
  className,
  ...rest
}: Labelled & ComponentProps<'input'>) {
  const id = useId()
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <input
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : hint ? `${id}-hint` : undefined}
        className={classes(box, error && 'border-rose', className)}
        {...rest}
      />
    </Frame>
  )
}

export function TextArea({
  label,
  hint,
  error,
  className,
  ...rest
}: Labelled & ComponentProps<'textarea'>) {
  const id = useId()
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <textarea
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : hint ? `${id}-hint` : undefined}
        className={classes(box, 'py-2', error && 'border-rose', className)}
        {...rest}
      />
    </Frame>
  )
}

export function Choice({
  label,
  hint,
  error,
  options,
  ...rest
}: Labelled & ComponentProps<'select'> & { options: readonly { value: string; name: string }[] }) {
  const id = useId()
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <select id={id} className={box} {...rest}>
        {options.map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </Frame>
  )
}
