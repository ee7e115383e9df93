'use client'

import { useRouter } from 'next/navigation'

/** A filter with many values: each leads to an address. */
export function FilterChoice({
  name,
  now,
  options,
}: {
  name: string
  now: string
  options: readonly { readonly value: string; readonly name: string }[]
}) {
  const router = useRouter()
  return (
    <label className="flex items-center gap-2 text-sm text-soft">
      {name}
      <select
        value={now}
        onChange={(event) => router.push(event.target.value)}
        className="min-h-9 max-w-60 rounded-md border border-line bg-raised px-2 text-ink"
      >
        {options.map(({ value, name: word }) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
      </select>
    </label>
  )
}
