import type { ReactNode } from 'react'
import type { RouteStep } from '@/core/coach/route'
import type { DialectId } from '@/core/notation/dialect'
import { capital } from '@/core/words'
import { Button } from '@/ui/Button'
import { Key } from '@/ui/Key'
import { TurnParts } from './TurnRow'

const Line = ({ word, children }: { word: string; children: ReactNode }) => (
  <div className="grid grid-cols-[4.6rem_1fr] gap-2">
    <dt className="font-display text-amber">{word}</dt>
    <dd className="min-w-0">{children}</dd>
  </div>
)

/** Look for, Hold, Turn, Check; or less, as strong as the hint that is wanted. */
export function StepCard({
  step,
  number,
  count,
  strength,
  done,
  dialect,
  hintKey,
  onHint,
  onTakeOther,
  aside,
}: {
  step: RouteStep
  number: number
  count: number
  /** 1 a nudge, 2 a pointer, 3 everything. */
  strength: number
  /** Turns of this step that are done. */
  done: number
  dialect: DialectId
  /** The key for a stronger hint, as shown. */
  hintKey: string
  onHint: () => void
  onTakeOther: (piece: string) => void
  aside?: ReactNode
}) {
  return (
    <section aria-label="Step card" className="rounded-lg border border-line bg-surface p-4">
      <div className="mb-2 flex items-baseline justify-between gap-2">
        <h2 className="text-sm text-soft">
          Step {number} of {count}
        </h2>
        {aside}
      </div>
      <div aria-live="polite">
        {strength <= 1 && <p className="text-lg">{step.hints.nudge}</p>}
        {strength === 2 && (
          <dl className="grid gap-2">
            <Line word="Look for">{step.hints.pointer}</Line>
            <Line word="Hold">{capital(step.hold)}.</Line>
          </dl>
        )}
        {strength >= 3 && (
          <dl className="grid gap-2">
            <Line word="Look for">{capital(step.lookFor)}</Line>
            <Line word="Hold">{sentence(step.hold)}</Line>
            {step.turns.length > 0 && (
              <Line word="Turn">
                <TurnParts
                  turns={step.turns}
                  done={done}
                  total={step.runs?.total}
                  dialect={dialect}
                />
              </Line>
            )}
            {step.note && (
              <Line word="Mind">
                <span className="text-soft">{step.note}</span>
              </Line>
            )}
            <Line word="Check">{capital(step.check)}</Line>
          </dl>
        )}
      </div>
      {strength < 3 && (
        <Button className="mt-3" onClick={onHint}>
          {strength < 2 ? 'Which piece, which place' : 'Show the turns'} <Key>{hintKey}</Key>
        </Button>
      )}
      {strength >= 2 && done === 0 && step.others.length > 0 && (
        <details className="mt-3 text-sm">
          <summary className="cursor-pointer text-soft">
            {step.kind === 'cycle' ? 'Or another third piece' : 'Or take another piece first'} (
            {step.others.length})
          </summary>
          <ul className="mt-1 grid gap-1">
            {step.others.map(({ piece, sentence: words }) => (
              <li key={piece} className="flex items-center justify-between gap-2">
                <span>{words}</span>
                <Button weight="quiet" onClick={() => onTakeOther(piece)}>
                  Take it
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

const sentence = (text: string): string => {
  const capitalised = capital(text)
  return capitalised.endsWith('.') ? capitalised : `${capitalised}.`
}
