/**
 * One piece at a time, for any puzzle whose moves are known: first the hold, and the shape where it
 * changes; then orbits without three-cycles, with odd and even and the twists of single places; then orbit
 * by orbit three pieces at a time by set up, cycle, undo, which leaves everything else alone.
 */
import { MOST_LAYOUTS } from '../analysis/layouts'
import { holdOf } from '../analysis/placements'
import { simplify } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE, PRODUCT, type Rotation } from '../rotation'
import { isInShape } from '../scramble/scramble'
import { isSolved, rotateState, turnFreely, type State } from '../state'
import { isNothing } from '../analysis/invariants'
import { accountOf, named } from './account'
import { baseCyclesOf } from './baseCycles'
import { cyclesHome, turnsOfCycle, type CycleStep, type Wish } from './cyclesHome'
import { areMovesAll, hasMoves } from './moves'
import { namedInOrbits, outsideOrbits } from './namedInOrbits'
import { settledPlan, type SettledPlan } from './orbitPlan'
import { canTakeShape, reshape } from './reshape'
import { Setups } from './setups'

export type UniversalStep =
  | { readonly kind: 'hold'; readonly turns: readonly Turn[] }
  | { readonly kind: 'shape'; readonly turns: readonly Turn[] }
  /** Orbits without three-cycles, all their pieces together. */
  | { readonly kind: 'small'; readonly orbits: readonly number[]; readonly turns: readonly Turn[] }
  | { readonly kind: 'sums'; readonly turns: readonly Turn[] }
  | ({ readonly kind: 'cycle'; readonly orbit: number } & CycleStep)

export interface UniversalWay {
  readonly steps: readonly UniversalStep[]
  /** Turns that trying other orders and cycles has saved. */
  readonly saved: number
}

/** All that is derived of a puzzle once. */
interface Kit extends SettledPlan {
  readonly setups: ReadonlyMap<number, Setups>
}

const kits = new WeakMap<Puzzle, Kit | string>()

/** The tables, or a sentence that says what is missing. */
export function kitOf(
  puzzle: Puzzle,
  progress: (share: number) => void = () => undefined,
): Kit | string {
  const known = kits.get(puzzle)
  if (known !== undefined) return known
  const kit = makeKit(puzzle, progress)
  kits.set(puzzle, kit)
  return kit
}

function makeKit(puzzle: Puzzle, progress: (share: number) => void): Kit | string {
  if (!hasMoves(puzzle))
    return `Turns of this puzzle can be blocked, and the pieces that decide it can lie in more than ${MOST_LAYOUTS.toLocaleString('en')} ways: too many to list, so no way home one piece at a time is known for it.`
  progress(0)
  const settled = settledPlan(puzzle)
  if (!settled)
    return 'Commutators were tried, their squares and cubes too, and gave no three-cycles for some pieces; and these have too many placements to list them all.'
  const cycles = baseCyclesOf(puzzle)
  const { later } = settled.plan
  const setups = new Map<number, Setups>()
  later.forEach((o, i) => {
    setups.set(o, new Setups(puzzle, cycles.get(o) ?? []))
    progress((i + 1) / later.length)
  })
  return { ...settled, setups }
}

/** Whether the universal school serves a puzzle; a sentence why not otherwise. */
export function whyNotServed(puzzle: Puzzle): string | undefined {
  const kit = kitOf(puzzle)
  return typeof kit === 'string' ? kit : undefined
}

const NO_TURNS = 'Some piece lies where no turns take it, so no turns lead home.'

/**
 * @param wish pieces (as they lie, whatever look-alikes are called) that the first series shall take
 * @param keepsNames whether look-alikes are what they are given as, instead of being told apart here; for
 *   states in shape that turns lead to
 */
export function solveUniversally(
  puzzle: Puzzle,
  given: State,
  wish?: Wish,
  keepsNames = false,
): Result<UniversalWay> {
  const kit = kitOf(puzzle)
  if (typeof kit === 'string') return fail('not-served', kit)
  const hold = holdOf(puzzle, given)
  if (hold === undefined) return fail('unreachable', NO_TURNS)
  const steps: UniversalStep[] = []
  let state = rotateState(given, INVERSE[hold])
  // The same with every piece under its own name.
  let actual = state
  const make = (given: UniversalStep) => {
    const step = given.kind === 'cycle' ? given : { ...given, turns: simplify(puzzle, given.turns) }
    steps.push(step)
    for (const turn of turnsOfStep(puzzle, step)) {
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      actual = turnFreely(puzzle, actual, turn, new Uint8Array(actual.length))
    }
  }
  if (hold !== IDENTITY) steps.push({ kind: 'hold', turns: wholeTurnsTo(puzzle, INVERSE[hold]) })
  if (!isInShape(puzzle, state)) {
    const turns = canTakeShape(puzzle, state) ? reshape(puzzle, state) : undefined
    if (!turns) return fail('unreachable', 'No turns bring this back into shape.')
    make({ kind: 'shape', turns })
  }
  // Names for pieces that lie where their orbits never take them would be sought for ever.
  if (outsideOrbits(puzzle, namedInOrbits(puzzle, state)).length > 0)
    return fail('unreachable', NO_TURNS)
  const { span } = accountOf(puzzle)
  const told = named(puzzle, state, (vector) => isNothing(span, vector))
  if (!told)
    return areMovesAll(puzzle)
      ? fail('unreachable', 'No turns lead from here to the finished puzzle.')
      : fail('not-served', 'No way home was found, and it is not sure that there is none.')
  if (!keepsNames) state = told.state
  const { plan, settlers } = kit
  for (const [i, { settle }] of settlers.entries()) {
    const turns = settle(state)
    // The first list holds all that any moves make of its pieces.
    if (!turns && i === 0 && areMovesAll(puzzle))
      return fail(
        'unreachable',
        'Some pieces are permuted by a small group, which does not have this position.',
      )
    if (!turns)
      return fail('not-served', 'Some pieces are in a position that no turns were listed for.')
    if (turns.length === 0) continue
    make(
      i < plan.first.length
        ? { kind: 'small', orbits: plan.first[i], turns }
        : { kind: 'sums', turns },
    )
  }
  const settled = named(puzzle, state, (vector) => vector.every((entry) => entry === 0))
  if (!settled) return fail('not-served', 'Odd and even could not be settled.')
  if (
    !keepsNames ||
    accountOf(puzzle)
      .vectorOf(state)
      .some((entry) => entry !== 0)
  )
    state = settled.state
  let saved = 0
  const liesAt = (piece: number) => puzzle.place[24 * piece + actual[piece]]
  for (const [orbit, setups] of kit.setups) {
    const places = wish && { first: liesAt(wish.first), third: liesAt(wish.third) }
    const way = cyclesHome(puzzle, orbit, setups, state, places)
    if (!way) return fail('not-served', 'Some pieces could not be brought home by three-cycles.')
    saved += way.first
    // What is wished for concerns the first series of all.
    if (way.steps.length > 0) wish = undefined
    for (const step of way.steps) {
      make({ kind: 'cycle', orbit, ...step })
      saved -= step.cycle.length
    }
  }
  if (!isSolved(puzzle, state))
    return fail('not-served', 'The way that was found does not end at the finished puzzle.')
  return ok({ steps, saved })
}

/** All turns of a step, in order. */
export const turnsOfStep = (puzzle: Puzzle, step: UniversalStep): readonly Turn[] =>
  step.kind === 'cycle' ? turnsOfCycle(puzzle, step.cycle) : step.turns

/** The fewest whole-puzzle turns that make a rotation. */
function wholeTurnsTo(puzzle: Puzzle, wanted: Rotation): Turn[] {
  const whole = puzzle.turns.filter((turn) => turn.whole)
  const paths = new Map<Rotation, Turn[]>([[IDENTITY, []]])
  for (const [rotation, path] of paths)
    for (const turn of whole) {
      const next = PRODUCT[24 * turn.rotation + rotation]
      if (!paths.has(next)) paths.set(next, [...path, turn])
    }
  return paths.get(wanted) ?? []
}
