/**
 * Shorter if found: a route of the universal school, step by step. A step brings some pieces home and keeps
 * those that are; whatever else it keeps is worth nothing yet. A two-ended search looks for fewer turns that
 * do as much, and the rest is planned anew from where they lead. What is shorter as a whole is kept.
 */
import { frameOf } from '../analysis/frame'
import { canBlock } from '../analysis/placements'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { must } from '../result'
import { INVERSE, type Rotation } from '../rotation'
import type { School } from '../schools/school'
import { shortestFor, type Search, type Tally } from '../search/twoEnded'
import { looksHome, readState, rotateState, turnFreely, type State } from '../state'
import { accountOf, areSumsSettled } from '../universal/account'
import { effectOfTurn } from '../universal/effects'
import { Sums } from '../universal/sumNumbers'
import { withMeetings } from './meetings'
import { replayed } from './plan'
import { withoutEcho, stepsOf, type Route, type RouteStage, type RouteStep } from './route'
import { owedAt, trailOf } from './standing'
import { planUniversally } from './universal'

export interface Watch {
  /** Whether time is up, or the solver has said stop. */
  readonly isOver: () => boolean
  /** Lets others have their turn; called every few milliseconds. */
  readonly pause: () => Promise<void>
  /** Told with the turns of the best route so far. */
  readonly onBetter: (turnCount: number) => void
}

/** Sequences of one length from which the rest is planned. */
const TRIED = 4

/** Positions that are kept on each side: few as long as that finds something, then more. */
const KEPT = [40_000, 120_000]

/** The best route that was found before time was up: the one given, if none is shorter. */
export async function shorten(
  puzzle: Puzzle,
  school: School,
  given: Route,
  scheme: Scheme,
  { isOver, pause, onBetter }: Watch,
): Promise<Route> {
  let best = given
  const rest = async () => {
    await pause()
    return isOver()
  }
  for (const kept of KEPT)
    for (let isBetter = true; isBetter && !isOver();) {
      isBetter = false
      for (let at = 0; at < stepsOf(best).length && !(await rest()); at++) {
        const search = searchFor(puzzle, school, best, at)
        if (!search) continue
        for (const turns of await shortestFor(puzzle, { ...search, kept, rest })) {
          const found = spliced(puzzle, school, best, at, turns, scheme)
          if (found && found.turnCount < best.turnCount) {
            best = found
            isBetter = true
            onBetter(best.turnCount)
            break
          }
          if (await rest()) break
        }
      }
    }
  return best
}

interface Place {
  readonly before: State
  readonly frame: Rotation
  readonly step: RouteStep
  readonly stage: number
  /** Turns of the step after its hold turns. */
  readonly length: number
  /** Pieces that look home after it, among those that its stage and earlier ones care for. */
  readonly kept: readonly number[]
}

/** A step of a route by three-cycles, with what it is good for; undefined for any other. */
function placeOf(puzzle: Puzzle, school: School, route: Route, at: number): Place | undefined {
  const trail = trailOf(puzzle, route)
  const { steps, stageOfStep, firstOfStep, states, frames } = trail
  const step = steps[at]
  if (step.kind !== 'cycle' && step.kind !== 'found') return undefined
  // What the step before left standing is owed, and only this step pays it back.
  if (owedAt(puzzle, trail, firstOfStep[at]).length > 0) return undefined
  const held = step.turns.filter(({ role }) => role === 'hold').length
  const first = firstOfStep[at] + held
  const end = firstOfStep[at + 1]
  const frame = frames[first]
  const stage = stageOfStep[at]
  const cared = new Set(
    school.stages[stage].goal.flatMap(({ must: what, pieces }) =>
      what === 'looks home' ? [...(pieces ?? [])] : [],
    ),
  )
  const after = rotateState(states[end], INVERSE[frames[end]])
  const kept = [...cared].filter((p) => looksHome(puzzle, p, after[p]))
  const before = rotateState(states[first], INVERSE[frame])
  return { before, frame, step, stage, length: end - first, kept }
}

/** A search for what a step does in fewer turns; undefined where nothing is to be looked for. */
function searchFor(
  puzzle: Puzzle,
  school: School,
  route: Route,
  at: number,
): Omit<Search, 'kept'> | undefined {
  const place = placeOf(puzzle, school, route, at)
  if (!place || place.frame !== 0) return undefined
  const { kept: pieces, before: state, length } = place
  const { turns } = frameOf(puzzle)
  const search = { pieces, state, turns, most: length - 1, ways: TRIED }
  if (!canBlock(puzzle)) return { ...search, tally: sumsOf(puzzle) }
  // Out of shape there are no sums: a sequence is judged by where it ends.
  return { ...search, accepts: (way) => areSumsSettled(puzzle, turnedFreely(puzzle, state, way)) }
}

const turnedFreely = (puzzle: Puzzle, from: State, turns: readonly Turn[]): State =>
  turns.reduce<State>(
    (state, turn) => turnFreely(puzzle, state, turn, new Uint8Array(state.length)),
    from,
  )

const tallies = new WeakMap<Puzzle, Tally>()

/** Odd and even and the twists stay settled. */
function sumsOf(puzzle: Puzzle): Tally {
  const known = tallies.get(puzzle)
  if (known) return known
  const { coordinates, changes, vectorOf } = accountOf(puzzle)
  const moduli = coordinates.map(({ modulus }) => modulus)
  const sums = new Sums(
    moduli,
    changes.map(({ by }) => by),
  )
  const frames = new Set(frameOf(puzzle).turns.map(({ grip }) => grip))
  const vectors = puzzle.turns.map((turn) =>
    frames.has(turn.grip) ? vectorOf(effectOfTurn(puzzle, turn)) : [],
  )
  const tally: Tally = {
    plus: (sum, turn) => sums.plus(sum, vectors[turn.index]),
    seen: (sum) => sums.cosetOf(sum),
  }
  tallies.set(puzzle, tally)
  return tally
}

/** The route with one step replaced and the rest planned anew; undefined if that leads nowhere. */
function spliced(
  puzzle: Puzzle,
  school: School,
  route: Route,
  at: number,
  turns: readonly Turn[],
  scheme: Scheme,
): Route | undefined {
  const place = placeOf(puzzle, school, route, at)
  if (!place) return undefined
  const after = turnedFreely(puzzle, place.before, turns)
  const rest = planUniversally(puzzle, school, after, scheme)
  if (!rest.ok) return undefined
  const holds = place.step.turns.filter(({ role }) => role === 'hold')
  const step = foundStep(puzzle, place, after, turns, holds)
  const { steps, stageOfStep } = trailOf(puzzle, route)
  const stages = route.stages.map((stage, s): RouteStage => {
    const kept = steps.slice(0, at).filter((_, index) => stageOfStep[index] === s)
    const own = [
      ...kept,
      ...(s === place.stage && turns.length + holds.length > 0 ? [step] : []),
      ...rest.value.stages[s].steps,
    ].map((each, nth) => ({ ...each, id: `${stage.id}.${nth + 1}` }))
    return { ...stage, steps: own, done: own.length === 0 }
  })
  // Stages go in order: what the rest makes due again in an earlier one cannot be spliced.
  const isBack = rest.value.stages.some(({ steps }, s) => s < place.stage && steps.length > 0)
  if (isBack) return undefined
  const all = stages.flatMap((stage) => stage.steps)
  const shown = withMeetings(puzzle, {
    ...route,
    stages,
    algorithms: [...new Set(all.map(({ algorithm }) => algorithm.join(' ')).filter(Boolean))],
    looks: all.length,
  })
  const gain = Math.max(0, route.turnCount - shown.turnCount)
  const whole = { ...shown, saved: (route.saved ?? 0) + gain }
  const proven = replayed(puzzle, whole, must(readState(puzzle, route.from)))
  return proven.ok ? proven.value : undefined
}

function foundStep(
  puzzle: Puzzle,
  { before, step, kept }: Place,
  after: State,
  turns: readonly Turn[],
  holds: RouteStep['turns'],
): RouteStep {
  const arriving = kept.filter((p) => !looksHome(puzzle, p, before[p]))
  const ids = (pieces: readonly number[]) => pieces.map((p) => puzzle.pieces[p].id)
  const found = { kind: 'foundTogether', pieces: ids(arriving), turns: turns.length } as const
  return withoutEcho({
    id: step.id,
    kind: 'found',
    lookFor: [found],
    hold: step.hold,
    check: [{ kind: 'homeNow', pieces: ids(arriving) }],
    hints: {
      nudge: [{ kind: 'canComeTogether', count: arriving.length }],
      pointer: [{ kind: 'rightTogether', pieces: ids(arriving) }],
    },
    note: [{ kind: 'foundHere' }],
    turns: [...holds, ...turns.map(({ name }) => ({ name, role: 'do' as const }))],
    algorithm: turns.map(({ name }) => name),
    pieces: arriving.map((p) => puzzle.pieces[p].id),
    places: [],
    others: [],
    frame: step.frame,
  })
}
