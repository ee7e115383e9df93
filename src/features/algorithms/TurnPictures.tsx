import type { DialectId } from '@/core/notation/dialect'
import { writeTurnName } from '@/core/notation/write'
import type { Puzzle, Turn } from '@/core/puzzle/compile'
import type { State } from '@/core/state'
import { TurnPicture } from '@/ui/puzzle-picture/TurnPicture'

/** A small picture a turn, of the puzzle before it with one arrow: for print, and for who reads no letters. */
export function TurnPictures({
  puzzle,
  turns,
  states,
  dialect,
}: {
  puzzle: Puzzle
  turns: readonly Turn[]
  states: readonly State[]
  dialect: DialectId
}) {
  return (
    <section aria-label="In arrows" className="rounded-lg border border-line bg-surface p-4">
      <ol className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(9rem,1fr))]">
        {turns.slice(0, states.length).map((turn, i) => (
          <li key={i} className="break-inside-avoid">
            <TurnPicture puzzle={puzzle} state={states[i]} turn={turn} className="w-full" />
            <p className="text-center text-xs">
              {i + 1}. <span className="turns">{writeTurnName(turn.name, dialect)}</span>
            </p>
          </li>
        ))}
      </ol>
    </section>
  )
}
