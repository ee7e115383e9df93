import { puzzleById } from '../catalog'
import type { Said } from '../claims/claim'
import { must } from '../result'
import { textOf } from '../words/span'
import type { Route, RouteStep } from './route'
import { sayCard } from './sayCard'
import { trailOf } from './standing'

/** A route as programs stored it that had no claims: the words of its cards in their place. */
export function asBefore(route: Route): Route {
  const puzzle = must(puzzleById(route.puzzle))
  const trail = trailOf(puzzle, route)
  let nth = 0
  const step = ({ lines, halfway, others, ...rest }: RouteStep): unknown => {
    const said = sayCard(puzzle, puzzle.definition.colours, trail, nth++)
    const sentences = <T extends { readonly says: Said }>(
      all: readonly T[],
      texts: typeof said.lines,
    ) => all.map((each, i) => ({ ...each, says: undefined, sentence: textOf(texts[i]) }))
    return {
      ...rest,
      // What was within a step is in its note.
      meets: rest.meets?.filter(({ isWithin }) => !isWithin),
      lookFor: textOf(said.lookFor),
      hold: textOf(said.hold),
      check: textOf(said.check),
      ...(rest.note ? { note: textOf(said.note) } : {}),
      ifNot: 'A turn went another way.',
      hints: { nudge: textOf(said.nudge), pointer: textOf(said.pointer) },
      ...(lines ? { lines: sentences(lines, said.lines) } : {}),
      ...(halfway ? { halfway: { after: halfway.after, sentence: textOf(said.halfway) } } : {}),
      others: sentences(others, said.others),
    }
  }
  return {
    ...route,
    stages: route.stages.map((stage) => ({ ...stage, steps: stage.steps.map(step) })),
  } as Route
}
