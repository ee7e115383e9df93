import { Pause, Play } from 'lucide-react'
import { useEffect, useState } from 'react'
import type { BenchClock } from './useClock'

/** The time on the bench, and the way to stop it for a while. */
export function Clock({ clock, isOver }: { clock: BenchClock; isOver: boolean }) {
  const { elapsedMs, isPaused, pause, goOn } = clock
  const [seconds, setSeconds] = useState(0)
  useEffect(() => {
    const show = () => setSeconds(Math.floor(elapsedMs() / 1000))
    show()
    if (isOver) return
    const timer = setInterval(show, 1000)
    return () => clearInterval(timer)
  }, [elapsedMs, isOver, isPaused])
  const minutes = Math.floor(seconds / 60)
  const Act = isPaused ? Play : Pause
  return (
    <span className="flex items-center gap-1 whitespace-nowrap">
      <span className="turns" aria-label="Time on the bench">
        {minutes}:{`${seconds % 60}`.padStart(2, '0')}
      </span>
      {!isOver && (
        <button
          type="button"
          aria-label={isPaused ? 'Let the clock go on' : 'Pause the clock'}
          title={isPaused ? 'Let the clock go on' : 'Pause the clock'}
          aria-pressed={isPaused}
          className="grid size-8 place-items-center rounded-md text-soft hover:bg-raised hover:text-ink pointer-coarse:size-11"
          onClick={isPaused ? goOn : pause}
        >
          <Act size={16} aria-hidden />
        </button>
      )}
    </span>
  )
}
