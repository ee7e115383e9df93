/** The cards of a route as they stand on the bench, stage by stage, for reading from outside. */
import { legendOf, shortTurnWords } from '../core/analysis/turnWords'
import { owedAt, trailOf } from '../core/coach/standing'
import { mindOf } from '../core/coach/meetings'
import type { Route } from '../core/coach/route'
import type { Puzzle, Turn } from '../core/puzzle/compile'
import { capital } from '../core/words'

export interface Card {
  /** One line a piece, with its number, where there are several. */
  readonly lookFor: string
  readonly hold: string
  readonly turns: readonly {
    readonly name: string
    readonly role: string
    readonly run?: number
    readonly words: string
  }[]
  /** What each letter turns, clockwise. */
  readonly legend: readonly string[]
  readonly halfway?: { readonly after: number; readonly sentence: string }
  readonly note: string
  readonly check: string
  readonly ifNot: string
  readonly hints: { readonly nudge: string; readonly pointer: string }
  /** The sequence as it is remembered, without repeats. */
  readonly algorithm: string
  /** What is still to be undone once the set-up turns of the card are made, the next first. */
  readonly owed: string
  /** Ids of the pieces that glow, and of the places that are ringed. */
  readonly pieces: readonly string[]
  readonly places: readonly string[]
}

/** For each stage the cards of its steps. */
export function cardsOf(puzzle: Puzzle, route: Route): Card[][] {
  const trail = trailOf(puzzle, route)
  return route.stages.map((_, stage) =>
    trail.steps.flatMap((step, s): Card[] => {
      if (trail.stageOfStep[s] !== stage) return []
      const first = trail.firstOfStep[s]
      const setUp = step.turns.reduce((last, { role }, i) => (role === 'setup' ? i + 1 : last), 0)
      const names = step.turns.map(({ name }) => name)
      return [
        {
          lookFor: step.lines
            ? step.lines.map(({ sentence }, i) => `${i + 1} ${sentence}`).join('\n')
            : capital(step.lookFor),
          hold: capital(step.hold),
          turns: step.turns.map((turn) => ({
            ...turn,
            words: shortTurnWords(puzzle, puzzle.turnByName.get(turn.name) as Turn),
          })),
          legend: legendOf(puzzle, names),
          ...(step.halfway ? { halfway: step.halfway } : {}),
          note: mindOf(step),
          check: capital(step.check),
          ifNot: step.ifNot ?? '',
          hints: step.hints,
          algorithm: step.algorithm.join(' '),
          owed: owedAt(puzzle, trail, first + setUp).join(' '),
          pieces: step.pieces,
          places: step.places,
        },
      ]
    }),
  )
}

/** The same as lines to read. */
export function writeCards(stage: {
  readonly id: string
  readonly cards?: readonly Card[]
}): string[] {
  return (stage.cards ?? []).flatMap((card) => [
    '',
    `[${stage.id}]`,
    `Look for  ${card.lookFor.replaceAll('\n', '\n          ')}`,
    `Hold      ${card.hold}`,
    `Turn      ${card.turns.map(({ name }) => name).join(' ')}`,
    ...card.legend.map((line) => `          ${line}`),
    ...(card.halfway ? [`          ${card.halfway.sentence}`] : []),
    ...(card.note ? [`Mind      ${card.note}`] : []),
    `Check     ${card.check}`,
    ...(card.ifNot ? [`If not    ${card.ifNot}`] : []),
  ])
}
