import { ACTS, showKey, type Keys } from '@/core/keys'
import { Sheet } from '@/ui/Sheet'

export function KeysSheet({
  keys,
  open,
  onOpenChange,
}: {
  keys: Keys
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Keys of the bench">
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {ACTS.map(({ id, does }) => (
          <div key={id} className="contents">
            <dt className="turns">{showKey(keys[id])}</dt>
            <dd>{does}</dd>
          </div>
        ))}
        <dt className="turns">U D F B R L</dt>
        <dd>turn a layer clockwise; with Shift the other way</dd>
        <dt className="turns">2 R</dt>
        <dd>a digit first: that layer alone, counted from outside; 1 is a cap or a tip</dd>
        <dt className="turns">M E S</dt>
        <dd>turn a middle slice, where there is one</dd>
        <dt className="turns">X Y Z</dt>
        <dd>turn the whole puzzle</dd>
      </dl>
      <p className="mt-4 text-sm text-soft">
        They can be changed in Settings. Ctrl+K goes anywhere.
      </p>
      <p className="mt-2 text-sm text-soft">
        Or drag a layer with the mouse or a finger. Drag beside the puzzle to peek around it.
      </p>
    </Sheet>
  )
}
