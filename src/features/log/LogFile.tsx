'use client'

import { Download, Upload } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { toast } from 'sonner'
import { plural } from '@/core/phrases'
import { FileButton } from '@/ui/FileButton'
import { ImportProgress } from '@/ui/ImportProgress'
import { Notice } from '@/ui/Notice'
import { useImport } from '@/ui/useImport'

/** The log to a file and back. */
export function LogFile({ hasSolves }: { hasSolves: boolean }) {
  const router = useRouter()
  const importing = useImport('log', {
    onDone: (stored) => {
      toast(
        stored === 0
          ? 'Every solve of the file was in the log already.'
          : `${plural(Number(stored), 'solve')} imported.`,
      )
      router.refresh()
    },
  })
  const busy = importing.share !== undefined

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
          onChoose={importing.begin}
        >
          <Upload size={16} aria-hidden /> {busy ? 'Reading' : 'Import'}
        </FileButton>
      </div>
      <ImportProgress importing={importing} />
      {importing.trouble && <Notice kind="wrong">{importing.trouble}</Notice>}
    </div>
  )
}
