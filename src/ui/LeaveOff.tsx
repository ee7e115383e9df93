import { plural } from '@/core/phrases'
import { Button, LinkButton } from './Button'
import { Sheet } from './Sheet'

/** Another bench of the same copy runs: nothing ends it unasked. */
export interface Running {
  readonly id: string
  readonly turns: number
}

export function LeaveOff({
  running,
  onLeaveOff,
  onClose,
}: {
  running: Running
  onLeaveOff: () => void
  onClose: () => void
}) {
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="It is on the bench already"
      description={`You are ${plural(running.turns, 'turn')} in. If you begin anew, that solve is left off: it stays in the log, and you can take it up again.`}
    >
      <div className="flex flex-wrap gap-2">
        <LinkButton weight="attend" href={`/bench/${running.id}`}>
          Go on with it
        </LinkButton>
        <Button onClick={onLeaveOff}>Leave it off and begin anew</Button>
        <Button weight="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </Sheet>
  )
}
