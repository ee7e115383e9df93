/**
 * The order of the work: which orbits come first one by one, which are settled together with odd and even,
 * and in which order the others follow three pieces at a time. It takes searches to find, so it is shipped
 * for the catalogue, and a route carries it to where it is drawn.
 */
import { definitionKey } from '../analysis/definitionKey'
import { learnedTables } from '../analysis/learnedTables'
import type { Puzzle } from '../puzzle/compile'
import { baseCyclesOf, disturbedBy, type BaseCycle } from './baseCycles'
import derived from './derived/plans.json'
import { movesOf } from './moves'
import { workOf } from './orbitsAtWork'
import { settler, type Settler } from './settle'

/** Orbits by their positions in `workOf(puzzle).orbits`. */
export interface OrbitPlan {
  /** Orbits without three-cycles, group after group, too large to be settled all together. */
  readonly first: readonly (readonly number[])[]
  /** Settled together with odd and even and all single places. */
  readonly settled: readonly number[]
  /** Three pieces at a time. */
  readonly later: readonly number[]
}

const plans = new WeakMap<Puzzle, OrbitPlan>()

/** As it is shipped or was found; undefined if it is not known yet. */
export function knownPlanOf(puzzle: Puzzle): OrbitPlan | undefined {
  const known = plans.get(puzzle)
  if (known) return known
  const shipped =
    (derived as unknown as Record<string, OrbitPlan>)[definitionKey(puzzle.definition)] ??
    (learnedTables(puzzle.definition).plan as OrbitPlan | undefined)
  if (shipped) plans.set(puzzle, shipped)
  return shipped
}

/** Takes over what was found elsewhere. */
export function learnPlan(puzzle: Puzzle, plan: OrbitPlan): void {
  if (!knownPlanOf(puzzle)) plans.set(puzzle, plan)
}

/** What it looks like before any search: every orbit of three places or more by three-cycles. */
export function guessedPlan(puzzle: Puzzle): OrbitPlan {
  const sizes = workOf(puzzle).orbits.map(({ orbit }) => orbit.places.length)
  const all = [...sizes.keys()]
  return {
    first: [],
    settled: all.filter((o) => sizes[o] === 2),
    later: all.filter((o) => sizes[o] >= 3),
  }
}

export interface SettledPlan {
  readonly plan: OrbitPlan
  /** One for each group of `first`, then one for `settled`. */
  readonly settlers: readonly Settler[]
}

/** The plan with its tables; undefined if something can be neither cycled nor listed. */
export function settledPlan(puzzle: Puzzle): SettledPlan | undefined {
  const known = knownPlanOf(puzzle)
  const found = known ? withTables(puzzle, known) : searchPlan(puzzle)
  if (found) plans.set(puzzle, found.plan)
  return found
}

/** The search itself, whatever is shipped. */
export function searchPlan(
  puzzle: Puzzle,
  cycles: ReadonlyMap<number, readonly BaseCycle[]> = baseCyclesOf(puzzle),
): SettledPlan | undefined {
  const { orbits } = workOf(puzzle)
  const later = inOrder(puzzle, cycles)
  const small = [...orbits.keys()]
    .filter((o) => orbits[o].orbit.places.length > 1 && !cycles.has(o))
    .sort((a, b) => orbits[a].orbit.places.length - orbits[b].orbit.places.length)
  const together = withTables(puzzle, { first: [], settled: small, later })
  if (together || small.length < 2) return together
  const groups = inGroups(puzzle, small)
  const last = groups.at(-1) ?? []
  return (
    withTables(puzzle, { first: groups.slice(0, -1), settled: last, later }) ??
    withTables(puzzle, { first: groups, settled: [], later })
  )
}

/** As many orbits in a group as can be listed together, moves of earlier groups left out of account. */
function inGroups(puzzle: Puzzle, orbits: readonly number[]): number[][] {
  const groups: number[][] = []
  for (const orbit of orbits) {
    const group = groups.at(-1)
    const grown = [...(group ?? []), orbit]
    if (group && settler(puzzle, placesOf(puzzle, grown), movesOf(puzzle), false, GROUP_LIMIT))
      group.push(orbit)
    else groups.push([orbit])
  }
  return groups
}

/** Smaller than what is listed at most: the words that leave a group settled are read off its list. */
const GROUP_LIMIT = 20_000

const placesOf = (puzzle: Puzzle, list: readonly number[]) =>
  list.flatMap((o) => [...workOf(puzzle).orbits[o].orbit.places])

function withTables(puzzle: Puzzle, plan: OrbitPlan): SettledPlan | undefined {
  const settlers: Settler[] = []
  let moves = movesOf(puzzle)
  const groups = [...plan.first, plan.settled]
  for (const [i, group] of groups.entries()) {
    const isLast = i === plan.first.length
    const own = settler(puzzle, placesOf(puzzle, group), moves, isLast)
    if (!own) return undefined
    settlers.push(own)
    if (!isLast) moves = own.leaving(placesOf(puzzle, groups.slice(i + 1).flat()))
  }
  return { plan, settlers }
}

/** Orbits whose cycles disturb others come before them. */
function inOrder(puzzle: Puzzle, cycles: ReadonlyMap<number, readonly BaseCycle[]>): number[] {
  const disturbs = new Map(
    [...cycles].map(([o, list]) => [o, new Set(disturbedBy(puzzle, list, o))] as const),
  )
  const left = [...cycles.keys()]
  const found: number[] = []
  while (left.length > 0) {
    const next = left.findIndex((o) => !left.some((other) => disturbs.get(other)?.has(o)))
    found.push(...left.splice(Math.max(0, next), 1))
  }
  return found
}
