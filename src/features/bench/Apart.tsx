import { capital, plural } from '@/core/phrases'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import type { Apart } from './outbox'

/** What could not be kept, and what to do with it. */
export function ApartNotice({
  apart,
  isEnded,
  onLetGo,
}: {
  apart: Apart
  /** Whether nothing more is turned here. */
  isEnded: boolean
  onLetGo: () => void
}) {
  const turns = apart.entries.filter(({ event }) => event.kind === 'turn').length
  const save = () => {
    const text = JSON.stringify({ sentence: apart.sentence, entries: apart.entries }, null, 2)
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
    link.download = 'merry-lantern-not-kept.json'
    link.click()
    URL.revokeObjectURL(link.href)
  }
  return (
    <Notice kind="wrong">
      <p>
        {turns > 0 ? capital(plural(turns, 'turn')) : 'Something'} could not be kept.{' '}
        {apart.sentence}
        {isEnded ? '' : ' The bench goes on from what is kept.'}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={save}>Save as a file</Button>
        <Button onClick={onLetGo}>Let go</Button>
      </div>
    </Notice>
  )
}
