'use client'

import { Button } from '@/ui/Button'

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <div className="mx-auto grid max-w-prose gap-4 p-8" role="alert">
      <h1 className="text-2xl">Something went wrong here</h1>
      <p>
        What you did is kept. The program or its database did not answer as it should; try again,
        and if it stays, stop and start the program.
      </p>
      <div>
        <Button weight="attend" onClick={reset}>
          Try again
        </Button>
      </div>
    </div>
  )
}
