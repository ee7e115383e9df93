import { Sheet } from '@/ui/Sheet'
import { BENCH_KEYS } from './keys'

export function KeysSheet({
  open,
  onOpenChange,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Keys of the bench">
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {BENCH_KEYS.map(({ id, shown, does }) => (
          <div key={id} className="contents">
            <dt className="turns">{shown}</dt>
            <dd>{does}</dd>
          </div>
        ))}
        <dt className="turns">U D F B R L</dt>
        <dd>turn a layer clockwise; with Shift the other way</dd>
        <dt className="turns">M E S</dt>
        <dd>turn a middle slice, where there is one</dd>
        <dt className="turns">X Y Z</dt>
        <dd>turn the whole puzzle</dd>
      </dl>
      <p className="mt-4 text-sm text-soft">
        Or drag a layer with the mouse or a finger. Drag beside the puzzle to peek around it.
      </p>
    </Sheet>
  )
}
