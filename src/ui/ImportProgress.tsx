import { Button } from './Button'
import type { Importing } from './useImport'

/** How far a file is read, and the way to stop it. */
export function ImportProgress({ importing }: { importing: Importing }) {
  const { share, isSent, isWaiting, cancel } = importing
  if (share === undefined) return null
  const words = isSent
    ? 'Being sent'
    : isWaiting
      ? 'Waiting to be read'
      : `${Math.round(100 * share)} percent read`
  return (
    <div className="flex items-center gap-3 text-sm">
      <span role="status">{words}</span>
      <progress
        aria-label="How much of the file is read"
        max={1}
        value={share}
        className="h-2 w-32 accent-[var(--amber)]"
      />
      <Button weight="quiet" onClick={cancel}>
        Stop
      </Button>
    </div>
  )
}
