/** What is numbered and pointed at on the windows, at a step of the bench. */
import type { Bench } from '@/core/coach/bench'
import { statesOfStep } from '@/core/coach/standing'
import type { Puzzle } from '@/core/puzzle/compile'
import { NO_GUIDE, type Guide } from '@/ui/puzzle-view/overlay'

/**
 * Of the bench in the hold of its step. Numbers and arrows stand at the pieces of the card's lines until the first
 * layer of the step turns: after that the pieces are on their way. The next turn has its arrow always.
 */
export function guideOf(puzzle: Puzzle, bench: Bench, showsTurns: boolean): Guide {
  const { trail, step, done, state, deviation } = bench
  const card = trail?.steps[step]
  if (!trail || !card || deviation) return NO_GUIDE
  const next = trail.tape[done]
  const turn = showsTurns && next?.step === step ? puzzle.turnByName.get(next.name) : undefined
  const made = trail.tape.slice(trail.firstOfStep[step], done)
  const isFresh = made.every(({ role }) => role === 'hold')
  const pieces = (card.lines ?? []).map(({ piece }) =>
    puzzle.pieces.findIndex(({ id }) => id === piece),
  )
  if (!isFresh || pieces.length === 0)
    return { numbered: [], arrows: [], ...(turn ? { turn } : {}) }
  const { end } = statesOfStep(trail, step)
  return {
    numbered: pieces,
    arrows: pieces.map((piece) => ({
      from: { piece, rotation: state[piece] },
      to: { piece, rotation: end[piece] },
    })),
    ...(turn ? { turn } : {}),
  }
}
