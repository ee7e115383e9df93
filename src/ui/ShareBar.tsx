/** How much of something is done, 0 to 1. */
export function ShareBar({ share, label }: { share: number; label: string }) {
  const percent = Math.round(100 * Math.min(1, Math.max(0, share)))
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={percent}
      className="h-2 min-w-24 grow overflow-hidden rounded-full border border-line bg-raised"
    >
      <div className="h-full bg-amber" style={{ width: `${percent}%` }} />
    </div>
  )
}
