'use client'

import { Download, Upload } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { toast } from 'sonner'
import type { Result } from '@/core/result'
import { FileButton } from '@/ui/FileButton'
import { Notice } from '@/ui/Notice'

/** The log to a file and back. */
export function LogFile({ hasSolves }: { hasSolves: boolean }) {
  const router = useRouter()
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
        <FileButton
          label="File to import"
          accept=".json,.csv,application/json,text/csv"
          disabled={busy}
          onChoose={(file) => void read(file)}
        >
          <Upload size={16} aria-hidden /> {busy ? 'Reading' : 'Import'}
        </FileButton>
      </div>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
    </div>
  )
}
