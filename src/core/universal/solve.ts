/**
 * One piece at a time, for any puzzle whose turns never block: first the hold; then orbits without
 * three-cycles; then odd and even, with the twists of single places; then orbit by orbit three pieces at
 * a time by set up, cycle, undo, which leaves everything else alone.
 */
import { holdOf } from '../analysis/placements'
import type { Puzzle, Turn } from '../puzzle/compile'
import { fail, ok, type Result } from '../result'
import { IDENTITY, INVERSE, PRODUCT, type Rotation } from '../rotation'
import { isSolved, rotateState, turnFreely, type State } from '../state'
import { accountOf, isNothing, named } from './account'
import { baseCyclesOf, knownCyclesOf } from './baseCycles'
import { hasMoves } from './moves'
import { workOf } from './orbitsAtWork'
import { canTakeShape, reshape } from './reshape'
import { isInShape } from '../scramble/scramble'
import { Setups, type Cycle, type Found } from './setups'
import { smallOrbits, type SmallOrbit } from './smallOrbits'
import { sumsRoute } from './sumsRoute'

export type UniversalStep =
  | { readonly kind: 'hold'; readonly turns: readonly Turn[] }
  | { readonly kind: 'shape'; readonly turns: readonly Turn[] }
  | { readonly kind: 'small'; readonly orbit: number; readonly turns: readonly Turn[] }
  | { readonly kind: 'sums'; readonly turns: readonly Turn[] }
  | {
      readonly kind: 'cycle'
      readonly orbit: number
      readonly cycle: Cycle
      /** What lies in its three places before, in their order. */
      readonly pieces: readonly number[]
    }

/** All that is derived of a puzzle once. */
interface Kit {
  readonly setups: ReadonlyMap<number, Setups>
  readonly small: readonly SmallOrbit[]
  readonly problem?: string
}

const kits = new WeakMap<Puzzle, Kit>()

export function kitOf(puzzle: Puzzle, progress: (share: number) => void = () => undefined): Kit {
  const known = kits.get(puzzle)
  if (known) return known
  progress(0)
  const cycles = baseCyclesOf(puzzle)
  const { orbits } = workOf(puzzle)
  const { first, later } = orbitsInOrder(puzzle)
  const setups = new Map<number, Setups>()
  later.forEach((o, i) => {
    setups.set(o, new Setups(puzzle, cycles.get(o) ?? []))
    progress((i + 1) / (later.length + 1))
  })
  const small = smallOrbits(
    puzzle,
    first.map((o) => orbits[o].orbit.places),
  )
  const kit: Kit = small
    ? { setups, small }
    : {
        setups,
        small: [],
        problem:
          'No three-cycles were found for some pieces, and they have too many placements to list them all.',
      }
  kits.set(puzzle, kit)
  return kit
}

/**
 * Positions of the orbits: those without three-cycles, single places, and all others, in order. Where
 * the cycles are not known yet, every orbit of three places or more is taken to have them.
 */
export function orbitsInOrder(puzzle: Puzzle) {
  const { orbits } = workOf(puzzle)
  const known = knownCyclesOf(puzzle)
  const cycles = {
    has: (o: number) => (known ? known.has(o) : orbits[o].orbit.places.length >= 3),
  }
  const all = orbits.map((_, o) => o)
  const isSingle = (o: number) => orbits[o].orbit.places.length === 1
  return {
    first: all
      .filter((o) => !isSingle(o) && !cycles.has(o))
      .sort((a, b) => orbits[a].orbit.places.length - orbits[b].orbit.places.length),
    single: all.filter(isSingle),
    later: all.filter((o) => cycles.has(o)),
  }
}

/** Whether the universal school serves a puzzle; a sentence why not otherwise. */
export function whyNotServed(puzzle: Puzzle): string | undefined {
  if (!hasMoves(puzzle))
    return 'Turns of this puzzle can be blocked, and no way home one piece at a time is known for it yet.'
  return kitOf(puzzle).problem
}

export function solveUniversally(puzzle: Puzzle, given: State): Result<UniversalStep[]> {
  const why = whyNotServed(puzzle)
  if (why) return fail('not-served', why)
  const hold = holdOf(puzzle, given)
  if (hold === undefined)
    return fail('unreachable', 'Some piece lies where no turns take it, so no turns lead home.')
  const kit = kitOf(puzzle)
  const steps: UniversalStep[] = []
  let state = rotateState(given, INVERSE[hold])
  const make = (step: UniversalStep) => {
    steps.push(step)
    for (const turn of turnsOfStep(puzzle, step))
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
  }
  if (hold !== IDENTITY) steps.push({ kind: 'hold', turns: wholeTurnsTo(puzzle, INVERSE[hold]) })
  if (!isInShape(puzzle, state)) {
    const turns = canTakeShape(puzzle, state) ? reshape(puzzle, state) : undefined
    if (!turns) return fail('unreachable', 'No turns bring this back into shape.')
    make({ kind: 'shape', turns })
  }
  for (const { places, route } of kit.small) {
    const turns = route(state)
    if (!turns)
      return fail('not-served', 'Some pieces are in a position that their own turns do not mend.')
    if (turns.length > 0) make({ kind: 'small', orbit: orbitAt(puzzle, places), turns })
  }
  const { span } = accountOf(puzzle)
  const told = named(puzzle, state, (vector) => isNothing(span, vector))
  if (!told) return fail('unreachable', 'No turns lead from here to the finished puzzle.')
  state = told.state
  const settling = sumsRoute(puzzle, state)
  if (!settling) return fail('not-served', 'No turns were found that settle odd and even.')
  if (kit.small.length > 0 && settling.length > 0)
    return fail('not-served', 'Odd and even cannot be settled without undoing what is done.')
  if (settling.length > 0) make({ kind: 'sums', turns: settling })
  const settled = named(puzzle, state, (vector) => vector.every((entry) => entry === 0))
  if (!settled) return fail('not-served', 'Odd and even could not be settled.')
  state = settled.state
  for (const [orbit, setups] of kit.setups) {
    const cycles = cyclesHome(puzzle, orbit, setups, state)
    if (!cycles) return fail('not-served', 'Some pieces could not be brought home by three-cycles.')
    for (const cycle of cycles) {
      const pieces = cycle.places.map((place) =>
        state.findIndex((r, p) => puzzle.place[24 * p + r] === place),
      )
      make({ kind: 'cycle', orbit, cycle, pieces })
    }
  }
  if (!isSolved(puzzle, state))
    return fail('not-served', 'The way that was found does not end at the finished puzzle.')
  return ok(steps)
}

const orbitAt = (puzzle: Puzzle, places: readonly number[]): number =>
  workOf(puzzle).orbits.findIndex(({ orbit }) => orbit.places === places)

export function turnsOfCycle(puzzle: Puzzle, { setup, base }: Cycle): Turn[] {
  const undo = setup.map(({ inverse }) => puzzle.turns[inverse]).reverse()
  return [...setup, ...base.turns, ...undo]
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

/** Three-cycles that bring all pieces of an orbit home; undefined if they do not get there. */
function cyclesHome(
  puzzle: Puzzle,
  orbit: number,
  setups: Setups,
  from: State,
): Cycle[] | undefined {
  const { places } = workOf(puzzle).orbits[orbit].orbit
  const content = new Map<number, { home: number; rotation: Rotation }>()
  for (const p of places)
    content.set(puzzle.place[24 * p + from[p]], { home: p, rotation: from[p] })
  const found: Cycle[] = []
  const isHome = (place: number) => {
    const here = content.get(place)
    return here?.home === place && here.rotation === IDENTITY
  }
  const make = (cycle: Found) => {
    const before = cycle.places.map((place) => content.get(place))
    cycle.places.forEach((_, i) => {
      const moved = before[i]
      if (!moved) throw new Error('a place of the orbit is empty')
      const to = cycle.places[(i + 1) % 3]
      content.set(to, {
        home: moved.home,
        rotation: PRODUCT[24 * cycle.rotations[i] + moved.rotation],
      })
    })
    found.push(setups.cycle(cycle))
  }
  const limit = 4 * places.length + 8
  while (found.length < limit) {
    const wrong = places.filter((place) => !isHome(place))
    if (wrong.length === 0) return found
    const next = bestCycle(content, setups, wrong)
    if (next) {
      make(next)
      continue
    }
    const pair = twistPair(content, setups, places, wrong)
    if (!pair) return undefined
    pair.forEach(make)
  }
  return undefined
}

type Content = ReadonlyMap<number, { readonly home: number; readonly rotation: Rotation }>

/** What a cycle would bring home less what it would drive away, per turn. */
function bestCycle(content: Content, setups: Setups, wrong: readonly number[]): Found | undefined {
  const open = new Set(wrong)
  let best: Found | undefined
  let bestScore = -Infinity
  for (const place of wrong) {
    const here = content.get(place)
    if (!here || here.home === place) continue
    for (const cycle of setups.taking(place, here.home, INVERSE[here.rotation])) {
      const third = cycle.places[2]
      if (!open.has(third)) continue
      const gain = cycle.places.filter((_, i) => {
        const moved = content.get(cycle.places[i])
        const to = cycle.places[(i + 1) % 3]
        return moved?.home === to && PRODUCT[24 * cycle.rotations[i] + moved.rotation] === IDENTITY
      }).length
      const score = gain / (cycle.length + 2)
      if (score > bestScore) {
        bestScore = score
        best = cycle
      }
    }
  }
  return best
}

/**
 * Two cycles of three places, one way round and back, that turn one piece in its place, leave one as it
 * is and turn the third by what is left. Or all three where that makes all of them right.
 */
function twistPair(
  content: Content,
  setups: Setups,
  places: readonly number[],
  wrong: readonly number[],
): [Found, Found] | undefined {
  const a = wrong.find((place) => content.get(place)?.home === place) ?? wrong[0]
  let best: [Found, Found] | undefined
  let bestScore = -Infinity
  const others = places.filter((place) => place !== a)
  for (const b of wrong.filter((place) => place !== a).slice(0, 4))
    for (const c of others.filter((place) => place !== b).slice(0, 8))
      for (const one of setups.through(a, b, c))
        for (const other of setups.through(a, c, b)) {
          // a to b and back, b to c and back, c to a and back.
          const back = new Map(other.places.map((place, i) => [place, other.rotations[i]]))
          const net = one.places.map((place, i) => {
            const to = one.places[(i + 1) % 3]
            return { place, turn: PRODUCT[24 * (back.get(to) ?? 0) + one.rotations[i]] }
          })
          const gain = net.reduce((sum, { place, turn }) => {
            const here = content.get(place)
            if (!here || here.home !== place) return sum - 1
            const was = here.rotation === IDENTITY
            const is = PRODUCT[24 * turn + here.rotation] === IDENTITY
            return sum + Number(is) - Number(was)
          }, 0)
          if (gain <= 0) continue
          const score = gain / (one.length + other.length)
          if (score > bestScore) {
            bestScore = score
            best = [one, other]
          }
        }
  return best
}
