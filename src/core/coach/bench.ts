/**
 * The bench as a value: a list of events and what follows from them. Undo, replay and recovery all
 * come from the same list. Nothing here draws or plans; a new plan comes in as an event.
 */
import { joinedWith, type JoinedTurns } from '../notation/rewrite'
import type { Puzzle, Turn } from '../puzzle/compile'
import { blockOf, isSolved, sameState, turnFreely, type State } from '../state'
import { meetingsOn, turnsBetween, turnsOnTape } from './meetings'
import { unpacked, type StoredRoute } from './packed'
import { learnPlan } from '../universal/orbitPlan'
import { holdTurnsOf } from './route'
import { owedAt, trailOf, type Trail } from './standing'

/** What happened on a bench. Times are milliseconds since the session began. */
export type BenchEvent =
  /** A turn was made, by the solver's own hand or by 'next'. */
  | { readonly kind: 'turn'; readonly atMs: number; readonly name: string }
  /** The latest turn was taken back. */
  | { readonly kind: 'undo'; readonly atMs: number }
  /** A route was planned from the present state. */
  | { readonly kind: 'route'; readonly atMs: number; readonly route: StoredRoute }
  /** A step without turns was read and passed. */
  | { readonly kind: 'pass'; readonly atMs: number }
  | { readonly kind: 'hint'; readonly atMs: number; readonly strength: 1 | 2 | 3 }

export interface Deviation {
  /** The turn that was made and the one that the route has. */
  readonly made: string
  readonly expected: string
  /** What kind of slip it is. */
  readonly slip: 'other-turn' | 'unfinished-run' | 'wrong-hold' | 'regrip'
  /** What was owed when the whole puzzle was turned. */
  readonly owed?: string
  /** Run of a repeated sequence that is unfinished, and of how many. */
  readonly run?: { readonly at: number; readonly of: number }
}

/** A turn that was made and not taken back, with what was so before it; the one before it hangs on it. */
export interface Made {
  readonly turn: Turn
  readonly stood: Pick<
    Bench,
    'joined' | 'state' | 'trail' | 'done' | 'step' | 'stepsBefore' | 'deviation'
  >
  readonly earlier?: Made
  /** The how manieth turn since the start it is. */
  readonly count: number
}

export interface Bench {
  readonly puzzle: Puzzle
  readonly state: State
  /** The latest turn that can be taken back. */
  readonly made?: Made
  /** How many turns came before those that are known: where a bench was taken up from a snapshot. */
  readonly before: number
  readonly trail?: Trail
  /** Position on the trail: turns of the route that are done, and the step being worked on. */
  readonly done: number
  readonly step: number
  /** How many steps were done on trails before this one: steps are counted on when it is planned again. */
  readonly stepsBefore: number
  /** Set while the state is off the trail. */
  readonly deviation?: Deviation
  /** Strength of the hints shown for this step: 0 to 3. */
  readonly hint: number
  readonly slips: number
  /** The same with turns of one layer that follow each other joined: so they are counted. */
  readonly joined?: JoinedTurns
  readonly solved: boolean
}

/** How many turns were made since the start and not taken back. */
export const turnsMade = ({ made, before }: Bench): number => made?.count ?? before

/** The latest of them that are known, the earliest first; all if no number is given. */
export function latestTurns({ made }: Bench, most = Infinity): Turn[] {
  const turns: Turn[] = []
  for (let each = made; each && turns.length < most; each = each.earlier) turns.push(each.turn)
  return turns.reverse()
}

/** Whether the same turns have led to both. */
export function haveSameTurns(a: Bench, b: Bench): boolean {
  if (turnsMade(a) !== turnsMade(b)) return false
  let [one, other] = [a.made, b.made]
  // Two benches that came from one share what they have in common.
  while (one !== other) {
    if (!one || !other) return true
    if (one.turn !== other.turn) return false
    ;[one, other] = [one.earlier, other.earlier]
  }
  return true
}

export function openBench(puzzle: Puzzle, state: State): Bench {
  return {
    puzzle,
    state,
    before: 0,
    done: 0,
    step: 0,
    stepsBefore: 0,
    hint: 0,
    slips: 0,
    solved: isSolved(puzzle, state),
  }
}

/** A bench that was taken up from a snapshot was to take back a turn from before it: it is to be opened whole. */
export class BeyondSnapshot extends Error {}

/**
 * The bench after an event. An event that does not fit (an unknown turn) changes nothing.
 *
 * @throws BeyondSnapshot
 */
export function follow(bench: Bench, event: BenchEvent): Bench {
  switch (event.kind) {
    case 'turn':
      return turned(bench, event.name)
    case 'undo':
      return undone(bench)
    case 'route':
      // The stages of the school that it follows depend on it.
      if (event.route.orbitPlan) learnPlan(bench.puzzle, event.route.orbitPlan)
      return {
        ...bench,
        trail: trailOf(bench.puzzle, unpacked(event.route)),
        done: 0,
        step: 0,
        stepsBefore: bench.trail ? bench.stepsBefore + bench.step : 0,
        deviation: undefined,
        hint: 0,
      }
    case 'pass':
      return passed(bench)
    case 'hint':
      return { ...bench, hint: Math.max(bench.hint, event.strength) }
  }
}

export const replay = (bench: Bench, events: readonly BenchEvent[]): Bench =>
  events.reduce(follow, bench)

function turned(bench: Bench, name: string): Bench {
  const { puzzle, trail, done } = bench
  const turn = puzzle.turnByName.get(name)
  // Neither a turn that does not exist nor one that is blocked happens.
  if (!turn || blockOf(puzzle, bench.state, turn)) return bench
  const state = turnFreely(puzzle, bench.state, turn, new Uint8Array(bench.state.length))
  const count = turnsMade(bench) + 1
  const moved: Bench = {
    ...bench,
    state,
    made: { turn, stood: pick(bench), earlier: bench.made, count },
    joined: joinedWith(puzzle, bench.joined, turn, count - 1),
    solved: isSolved(puzzle, state),
  }
  if (!trail) return moved
  const reached = onTrail(trail, state, done, bench.step)
  if (reached !== undefined) {
    const step = stepAt(trail, reached)
    return {
      ...moved,
      done: reached,
      step,
      deviation: undefined,
      hint: step === bench.step ? bench.hint : 0,
    }
  }
  if (isHalfway(puzzle, trail, state, done) || isBetween(puzzle, trail, state, done)) return moved
  const deviation = bench.deviation ?? slipOf(bench, trail, turn)
  return { ...moved, deviation, slips: bench.deviation ? bench.slips : bench.slips + 1 }
}

/** How many turns were made so far. */
export const turnCountOf = ({ joined }: Bench): number => joined?.turnCount ?? 0

/** The same, a half turn counted as two. */
export const quarterCountOf = ({ joined }: Bench): number => joined?.quarterCount ?? 0

/** The turns of the whole puzzle that are still to come before the step's first other turn, canonical. */
export function holdAhead({ trail, done, step, deviation }: Bench): string[] {
  if (!trail || deviation) return []
  const coming = trail.tape.slice(done, trail.firstOfStep[step + 1])
  return coming.slice(0, holdTurnsOf({ turns: coming })).map(({ name }) => name)
}

/** The bench as its card speaks of it: in the hold of the step, which is taken when the solver goes on. */
export function held(bench: Bench): Bench {
  const ahead = holdAhead(bench).length
  const { trail, done } = bench
  return trail && ahead > 0
    ? { ...bench, state: trail.states[done + ahead], done: done + ahead }
    : bench
}

/** Whether the latest turn was made to take the hold of the step. */
export const hasJustHeld = ({ trail, done, made, deviation }: Bench): boolean =>
  deviation === undefined &&
  made?.turn.whole === true &&
  trail?.tape[done - 1]?.role === 'hold' &&
  trail.tape[done - 1].name === made.turn.name

const pick = ({ joined, state, trail, done, step, stepsBefore, deviation }: Bench) => ({
  joined,
  state,
  trail,
  done,
  step,
  stepsBefore,
  deviation,
})

function undone(bench: Bench): Bench {
  const { made, before } = bench
  if (!made && before > 0) throw new BeyondSnapshot('a turn is taken back that is not known here')
  if (!made) return bench
  const { stood, earlier } = made
  return {
    ...bench,
    ...stood,
    made: earlier,
    hint: stood.step === bench.step ? bench.hint : 0,
    solved: isSolved(bench.puzzle, stood.state),
  }
}

function passed(bench: Bench): Bench {
  const { trail, step, done } = bench
  if (!trail || trail.firstOfStep[step + 1] !== done) return bench
  return { ...bench, step: Math.min(step + 1, trail.steps.length), hint: 0 }
}

/**
 * The position on the trail, from `done` on and within this step or the next, that has this state.
 * Two positions may have one state; the nearest counts.
 */
function onTrail(trail: Trail, state: State, done: number, step: number): number | undefined {
  const last = trail.firstOfStep[Math.min(step + 2, trail.steps.length)]
  for (let at = done; at <= last; at++)
    if (trail.states[at].every((r, p) => r === state[p])) return at
  return undefined
}

/** The step to which a position belongs: the one just ended counts as passed. */
function stepAt(trail: Trail, position: number): number {
  let step = 0
  while (step < trail.steps.length && trail.firstOfStep[step + 1] <= position) step++
  // Steps without turns are read, not skipped.
  while (step > 0 && trail.firstOfStep[step] === position && isReading(trail, step - 1)) step--
  return step
}

const isReading = ({ steps }: Trail, step: number): boolean => steps[step].turns.length === 0

/** One quarter of a half turn that the route has next. */
function isHalfway(puzzle: Puzzle, trail: Trail, state: State, done: number): boolean {
  const next = trail.tape[done]
  if (!next) return false
  const turn = puzzle.turnByName.get(next.name)
  if (!turn || turn.amount !== 2) return false
  return puzzle.turns.some((quarter) => {
    if (quarter.grip !== turn.grip || quarter.amount === 2) return false
    const half = turnFreely(puzzle, trail.states[done], quarter, new Uint8Array(state.length))
    return half.every((r, p) => r === state[p])
  })
}

/** Between two turns that meet, made as the one that they are together, or left out as they cancel. */
function isBetween(puzzle: Puzzle, trail: Trail, state: State, done: number): boolean {
  const meetings = meetingsOn(puzzle, trail)
  const tape = turnsOnTape(puzzle, trail)
  return meetings.some((meeting) => {
    if (meeting.first !== done) return false
    let now = trail.states[done]
    const made = turnsBetween(tape, meetings, meeting)
    return [...(meeting.one ? [meeting.one] : []), ...made].some((turn) => {
      now = turnFreely(puzzle, now, turn, new Uint8Array(now.length))
      return sameState(now, state)
    })
  })
}

function slipOf(bench: Bench, trail: Trail, made: Turn): Deviation {
  const next = trail.tape[bench.done]
  const expected = next?.name ?? ''
  const step = trail.steps[next?.step ?? 0]
  // To hold it as the card says begins no run.
  const inRun =
    next?.run !== undefined && bench.done > trail.firstOfStep[next.step] + holdTurnsOf(step)
  const afterHold = trail.tape.slice(bench.done).find(({ role }) => role !== 'hold')
  const base = { made: made.name, expected }
  if (next?.role === 'hold' && afterHold?.name === made.name) return { ...base, slip: 'wrong-hold' }
  if (inRun && step.runs) {
    const run = { at: next.run as number, of: step.runs.total }
    return { ...base, slip: made.whole ? 'regrip' : 'unfinished-run', run }
  }
  const [owed] = owedAt(bench.puzzle, trail, bench.done)
  if (made.whole) return { ...base, slip: 'regrip', ...(owed === undefined ? {} : { owed }) }
  return { ...base, slip: 'other-turn' }
}
