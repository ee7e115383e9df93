/**
 * What may be added to a bench. `follow` passes over what does not fit, so that old events can always be
 * read; what is new is held to more: every turn of it is made on the engine before it is stored.
 */
import { whyBlocked } from '../words/whyBlocked'
import { countJoined } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { schoolAmong, schoolsOf } from '../schools'
import { fullVariant, stagesOf } from '../schools/school'
import { isSolved, turnAll, writeState } from '../state'
import { workOf } from '../universal/orbitsAtWork'
import { learnPlan, type OrbitPlan } from '../universal/orbitPlan'
import { follow, turnsMade, type Bench, type BenchEvent } from './bench'
import { namingOf } from './naming'
import { joinedAs } from '../analysis/joined'
import { isSayable } from '../claims/claim'
import { unpackedSafely, type StoredRoute } from './packed'
import { inClaims, saidOn, stepsOf, turnsOfRoute, type Route } from './route'

/** A bench that was taken up from a snapshot does not know the turns before it: `beyond`. */
const BEYOND = fail('beyond', 'The turn before is not known here: the bench is to be opened whole.')

/** The bench after an event that fits it, or why it does not fit. */
export function admit(bench: Bench, event: BenchEvent): Result<Bench> {
  if (event.kind === 'undo' && !bench.made && bench.before > 0) return BEYOND
  const misfit = misfitOf(bench, event)
  return misfit ? fail('misfit', misfit) : ok(follow(bench, event))
}

/** The same for a list; the field of the problem is the position of the event that does not fit. */
export function admitAll(bench: Bench, events: readonly BenchEvent[]): Result<Bench> {
  let now = bench
  for (const [i, event] of events.entries()) {
    const next = admit(now, event)
    if (!next.ok) return fail(next.problem.code, next.problem.sentence, { field: `events[${i}]` })
    now = next.value
  }
  return ok(now)
}

function misfitOf(bench: Bench, event: BenchEvent): string | undefined {
  const { puzzle, state } = bench
  switch (event.kind) {
    case 'turn': {
      const turn = puzzle.turnByName.get(event.name)
      if (!turn) return `This puzzle has no turn that is written ${event.name}.`
      return whyBlocked(puzzle, state, turn)
    }
    case 'undo':
      return turnsMade(bench) === 0 ? 'There is no turn to take back.' : undefined
    case 'route':
      return storedMisfit(bench, event.route)
    case 'pass':
    case 'hint':
      return undefined
  }
}

function storedMisfit(bench: Bench, stored: StoredRoute): string | undefined {
  const route = unpackedSafely(stored)
  return route.ok ? routeMisfit(bench, route.value) : route.problem.sentence
}

function routeMisfit({ puzzle, state }: Bench, route: Route): string | undefined {
  if (route.puzzle !== puzzle.definition.id) return 'The plan is for another puzzle.'
  if (route.from !== writeState(state)) return 'The plan begins at another position.'
  const turns: Turn[] = []
  for (const { name } of turnsOfRoute(route)) {
    const turn = puzzle.turnByName.get(name)
    if (!turn) return `The plan has a turn that this puzzle does not have: ${name}.`
    turns.push(turn)
  }
  const end = turnAll(puzzle, state, turns)
  if (!end.ok) return `The plan cannot be turned. ${end.problem.sentence}`
  if (!isSolved(puzzle, end.value)) return 'The plan does not lead home.'
  const { turnCount, quarterCount } = countJoined(puzzle, turns)
  if (turnCount !== route.turnCount || quarterCount !== route.quarterCount)
    return 'The plan counts its turns wrongly.'
  if (route.orbitPlan) {
    if (!isOrbitPlan(puzzle, route.orbitPlan))
      return 'The plan has an order of work that this puzzle cannot have.'
    // The stages of the school that it follows depend on it.
    learnPlan(puzzle, route.orbitPlan)
  }
  return schoolMisfit(puzzle, route) ?? namesMisfit(puzzle, route) ?? namingMisfit(puzzle, route)
}

function schoolMisfit(puzzle: Puzzle, route: Route): string | undefined {
  const school = schoolAmong(schoolsOf(puzzle), route.school)
  if (!school.ok) return school.problem.sentence
  const full = fullVariant(school.value, route.variant)
  const isFull =
    Object.keys(route.variant).length === Object.keys(full).length &&
    Object.entries(full).every(([option, choice]) => route.variant[option] === choice)
  if (!isFull) return `The plan is in a variant that ${school.value.name} does not have.`
  const stages = stagesOf(school.value, full)
  return stages.length === route.stages.length
    ? undefined
    : `The plan has other stages than ${school.value.name}.`
}

function namesMisfit(puzzle: Puzzle, route: Route): string | undefined {
  const ids = new Set(puzzle.pieces.map(({ id }) => id))
  for (const step of stepsOf(inClaims(route))) {
    const { pieces, places, others, as } = step
    // Of a smaller box it is told with the names of that one.
    const told = as ? joinedAs(puzzle, as)?.small : puzzle
    const isKnown =
      [...pieces, ...places, ...others.map(({ piece }) => piece)].every((id) => ids.has(id)) &&
      told !== undefined &&
      saidOn(step)
        .flat()
        .every((claim) => isSayable(told, claim))
    if (!isKnown) return 'The plan speaks of a piece or a place that this puzzle does not have.'
  }
  return undefined
}

/** Every piece that is taken for another is taken for one only, and looks like it. */
function namingMisfit(puzzle: Puzzle, route: Route): string | undefined {
  const { naming = [] } = route
  const ids = new Set(puzzle.pieces.map(({ id }) => id))
  const isOnce = (names: readonly string[]) =>
    new Set(names).size === names.length && names.every((id) => ids.has(id))
  const [as, is] = [naming.map((each) => each.as), naming.map((each) => each.is)]
  if (!isOnce(as) || !isOnce(is) || as.some((id) => !is.includes(id)))
    return 'The plan takes pieces for others that this puzzle does not have.'
  const alike = namingOf(puzzle, route).every(
    ({ as: name, is: piece, turned }) =>
      puzzle.look[24 * piece] === puzzle.look[24 * name + turned],
  )
  return alike ? undefined : 'The plan takes a piece for another that does not look like it.'
}

/** Whether every orbit is named once at most, and none that is not there. */
function isOrbitPlan(puzzle: Puzzle, { first, settled, later }: OrbitPlan): boolean {
  const named = [...first.flat(), ...settled, ...later]
  const { length } = workOf(puzzle).orbits
  return new Set(named).size === named.length && named.every((orbit) => orbit < length)
}
