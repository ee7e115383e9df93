'use client'

import { useRouter } from 'next/navigation'
import { startTransition, useCallback, useEffect, useState } from 'react'
import { Button } from '@/ui/Button'

/** Pauses between tries, in seconds; the last one stays. */
const PAUSES = [2, 3, 5, 8]

/** In the place of a page that could not be made: mostly the database is away for a while. */
export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  const router = useRouter()
  const [tries, setTries] = useState(0)
  const again = useCallback(() => {
    setTries((before) => before + 1)
    startTransition(() => {
      router.refresh()
      reset()
    })
  }, [reset, router])
  // A new error is a new try that failed.
  useEffect(() => {
    const pause = PAUSES[Math.min(tries, PAUSES.length - 1)]
    const timer = setTimeout(again, 1000 * pause)
    return () => clearTimeout(timer)
  }, [again, error, tries])
  return (
    <div className="mx-auto grid max-w-prose gap-4 p-8" role="alert">
      <h1 className="text-2xl">This page cannot be shown just now</h1>
      <p>
        The program or its database does not answer as it should. What was kept stays kept. This
        page tries again by itself and comes as soon as there is an answer; if it does not, stop and
        start Merry Lantern.
      </p>
      <div>
        <Button weight="attend" onClick={again}>
          Try now
        </Button>
      </div>
    </div>
  )
}
