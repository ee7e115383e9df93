/** The cards of a route as they stand on the bench, stage by stage, for reading from outside. */
import { CLOCK_WORDS } from '../core/analysis/placeNames'
import { legendOf, shortTurnWords } from '../core/analysis/turnWords'
import { owedAt, trailOf } from '../core/coach/standing'
import { ownTurnsOf, saidOn, type Route, type RouteStep, type RouteTurn } from '../core/coach/route'
import type { Puzzle, Turn } from '../core/puzzle/compile'
import { sayCard } from '../core/coach/sayCard'
import type { Claim } from '../core/claims/claim'
import type { Scheme } from '../core/puzzle/colours'
import type { Register } from '../core/words/lexicon'
import { textOf } from '../core/words/span'

export interface Card {
  /** One line a piece, with its number, where there are several. */
  readonly lookFor: string
  readonly hold: string
  /** Those of the whole puzzle that take the hold stand first. */
  readonly turns: readonly (RouteTurn & { readonly words: string })[]
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
  /** What the card says, before it is said: each can be checked. */
  readonly claims: readonly Claim[]
  /** Ids of the pieces that glow, and of the places that are ringed. */
  readonly pieces: readonly string[]
  readonly places: readonly string[]
}

/** For each stage the cards of its steps. */
export function cardsOf(
  puzzle: Puzzle,
  scheme: Scheme,
  route: Route,
  register: Register = 'full',
): Card[][] {
  const trail = trailOf(puzzle, route)
  return route.stages.map((_, stage) =>
    trail.steps.flatMap((step, s): Card[] => {
      if (trail.stageOfStep[s] !== stage) return []
      const first = trail.firstOfStep[s]
      const setUp = step.turns.reduce((last, { role }, i) => (role === 'setup' ? i + 1 : last), 0)
      const names = ownTurnsOf(step).map(({ name }) => name)
      const words = sayCard(puzzle, scheme, trail, s, register)
      return [
        {
          lookFor:
            words.lines.length > 0
              ? words.lines.map((line, i) => `${i + 1} ${textOf(line)}`).join('\n')
              : textOf(words.lookFor),
          hold: textOf(words.hold),
          turns: step.turns.map((turn) => ({
            ...turn,
            words: shortTurnWords(puzzle, puzzle.turnByName.get(turn.name) as Turn),
          })),
          legend: [...legendOf(puzzle, names), ...(words.usesClock ? [CLOCK_WORDS] : [])],
          ...(step.halfway
            ? { halfway: { after: step.halfway.after, sentence: textOf(words.halfway) } }
            : {}),
          note: textOf(words.note),
          check: textOf(words.check),
          ifNot: textOf(words.ifNot),
          hints: { nudge: textOf(words.nudge), pointer: textOf(words.pointer) },
          claims: claimsOn(step),
          algorithm: step.algorithm.join(' '),
          owed: owedAt(puzzle, trail, first + setUp).join(' '),
          pieces: step.pieces,
          places: step.places,
        },
      ]
    }),
  )
}

const claimsOn = (step: RouteStep): Claim[] =>
  saidOn(step)
    .flat()
    .filter(({ kind }) => kind !== 'text')

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
    // How the whole puzzle is turned first is said by the hold.
    `Turn      ${ownTurnsOf(card)
      .map(({ name }) => name)
      .join(' ')}`,
    ...card.legend.map((line) => `          ${line}`),
    ...(card.halfway ? [`          ${card.halfway.sentence}`] : []),
    ...(card.note ? [`Mind      ${card.note}`] : []),
    `Check     ${card.check}`,
    ...(card.ifNot ? [`If not    ${card.ifNot}`] : []),
  ])
}
