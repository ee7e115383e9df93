import { coloursOf } from '@/core/analysis/anatomy'
import type { Borrowed } from '@/core/coach/standing'
import type { DialectId } from '@/core/notation/dialect'
import { writeNames } from '@/core/notation/write'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'

/** Owed turns, the next undo first, and borrowed pieces with the step that brings them back. */
export function Debts({
  puzzle,
  scheme,
  owed,
  borrowed,
  step,
  stepsBefore,
  dialect,
  wide,
}: {
  puzzle: Puzzle
  scheme: Scheme
  owed: readonly string[]
  borrowed: readonly Borrowed[]
  step: number
  /** Steps are counted on from those of earlier plans. */
  stepsBefore: number
  dialect: DialectId
  /** Lists every borrowed piece by name. */
  wide: boolean
}) {
  const backAt = Math.max(...borrowed.map(({ backAtStep }) => backAtStep))
  return (
    <section aria-label="Debts" className="grid grid-cols-2 gap-3 text-sm">
      <div className="rounded-lg border border-line bg-surface px-4 py-2">
        <h2 className="text-sm text-soft">Owed</h2>
        {owed.length === 0 ? (
          <p>Nothing.</p>
        ) : (
          <p>
            <span className="turns text-base">{writeNames(owed, dialect)}</span>
            {owed.length > 1 && <span className="text-soft"> in this order</span>}
          </p>
        )}
      </div>
      <div className="rounded-lg border border-line bg-surface px-4 py-2">
        <h2 className="text-sm text-soft">Borrowed</h2>
        {borrowed.length === 0 ? (
          <p>Nothing.</p>
        ) : (
          <>
            <p>
              {borrowed.length} {borrowed.length === 1 ? 'piece' : 'pieces'}, back{' '}
              {backAt === step ? 'in this step' : `in step ${stepsBefore + backAt + 1}`}
            </p>
            {wide && (
              <ul className="mt-1 text-soft">
                {borrowed.map(({ piece, backAtStep }) => (
                  <li key={piece}>
                    {coloursOf(
                      puzzle,
                      scheme,
                      puzzle.pieces.findIndex(({ id }) => id === piece),
                    )}
                    : step {stepsBefore + backAtStep + 1}
                  </li>
                ))}
              </ul>
            )}
          </>
        )}
      </div>
    </section>
  )
}
