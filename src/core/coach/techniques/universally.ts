/** What the universal school does, as techniques of a stage: shape, odd and even, three at a time; or all that is left. */
import type { Puzzle, Turn } from '../../puzzle/compile'
import { pieceByPiece } from '../../schools/piece-by-piece'
import { isSolved } from '../../state'
import { stepsOf, type Route, type RouteStep } from '../route'
import { planUniversally } from '../universal'
import { PlanProblem, type StageContext, type Workpiece } from '../workpiece'

/** The way home that was found when the first of its stages began. */
const begun = new WeakMap<Workpiece, Route>()

/** @throws PlanProblem where the universal school does not serve the puzzle, or the state is unreachable */
function routeFrom({ puzzle, scheme, first, prefer }: StageContext, work: Workpiece): Route {
  const known = begun.get(work)
  if (known) return known
  const school = pieceByPiece(puzzle)
  if (!school)
    throw new PlanProblem({
      code: 'not-served',
      sentence: 'Its turns can be blocked in ways that are not understood.',
    })
  const wish = first === undefined || prefer === undefined ? undefined : { first, third: prefer }
  const route = planUniversally(puzzle, school, work.held().state, scheme, wish)
  if (!route.ok) throw new PlanProblem(route.problem)
  begun.set(work, route.value)
  const { saved, orbitPlan } = route.value
  work.found = { saved, ...(orbitPlan ? { orbitPlan } : {}) }
  return route.value
}

/** The steps of one stage of the universal school. */
export function doUniversally(context: StageContext, work: Workpiece): void {
  const own = routeFrom(context, work).stages.find(({ id }) => id === context.stage.id)
  give(context.puzzle, work, own?.steps ?? [])
}

/**
 * Whatever is left, to the end.
 *
 * @param why said on the first card, where the school's own way does not lead on
 */
export function doRest(context: StageContext, work: Workpiece, why?: 'noWayOn'): void {
  if (isSolved(context.puzzle, work.held().state)) return
  const [first, ...rest] = stepsOf(routeFrom(context, work))
  if (!first) return
  // It may mean the sides otherwise than the school did.
  if (why !== undefined) work.mean(first.frame)
  const note = [...(why === undefined ? [] : [{ kind: why } as const]), ...(first.note ?? [])]
  give(context.puzzle, work, [note.length === 0 ? first : { ...first, note }, ...rest])
}

/** Steps that have their words already. */
export function give(puzzle: Puzzle, work: Workpiece, steps: readonly RouteStep[]): void {
  for (const step of steps)
    work.step(
      { kind: 'given', step },
      step.turns.map(({ name, role, run }) => ({
        turn: puzzle.turnByName.get(name) as Turn,
        role,
        ...(run === undefined ? {} : { run }),
      })),
    )
}
