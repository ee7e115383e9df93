'use client'

import { Download, Upload } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { toast } from 'sonner'
import type { Result } from '@/core/result'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'

/** The log to a file and back. */
export function LogFile({ hasSolves }: { hasSolves: boolean }) {
  const router = useRouter()
  const input = useRef<HTMLInputElement>(null)
  const [trouble, setTrouble] = useState<string>()
  const [busy, setBusy] = useState(false)

  const read = async (file: File) => {
    setBusy(true)
    setTrouble(undefined)
    try {
      const response = await fetch('/api/log', { method: 'POST', body: await file.text() })
      const stored = (await response.json()) as Result<number>
      if (!stored.ok) return setTrouble(stored.problem.sentence)
      toast(
        stored.value === 0
          ? 'Every solve of the file was in the log already.'
          : `${stored.value} ${stored.value === 1 ? 'solve' : 'solves'} imported.`,
      )
      router.refresh()
    } catch {
      setTrouble('The file did not reach the program. Nothing was imported.')
    } finally {
      setBusy(false)
      if (input.current) input.current.value = ''
    }
  }

  return (
    <div className="grid justify-items-end gap-2">
      <div className="flex flex-wrap gap-2">
        {hasSolves &&
          (['json', 'csv'] as const).map((kind) => (
            <a
              key={kind}
              href={`/api/log?as=${kind}`}
              download
              className="inline-flex min-h-9 items-center gap-2 rounded-md border border-line bg-raised px-3 text-sm hover:border-soft"
            >
              <Download size={16} aria-hidden /> {kind.toUpperCase()}
            </a>
          ))}
        <Button onClick={() => input.current?.click()} disabled={busy}>
          <Upload size={16} aria-hidden /> {busy ? 'Reading' : 'Import'}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,.csv,application/json,text/csv"
          aria-label="File to import"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (file) void read(file)
          }}
        />
      </div>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
    </div>
  )
}
