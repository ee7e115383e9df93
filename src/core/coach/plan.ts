/** Plans a route for a state in a school, and replays it before it is given out. */
import { isReached } from '../universal/account'
import { colourIn, type Scheme } from '../puzzle/colours'
import type { Direction } from '../puzzle/directions'
import type { Puzzle, Turn } from '../puzzle/compile'
import { countQuarters, countTurns } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import { fullVariant, stagesOf, type School, type Stage, type Variant } from '../schools/school'
import type { Hand } from '../search/handCost'
import { blockOf, blockWords, isSolved, turnFreely, writeState, type State } from '../state'
import { explainStep, fillColours } from './explain'
import { frameMeeting, piecesMeeting } from './goal'
import { turnsOfRoute, type Route, type RouteStage } from './route'
import { planShortest } from './shortest'
import { basesOf, holdFor, startsWith, type Start } from './start'
import { runTechnique } from './technique'
import { isUniversal, planUniversally } from './universal'
import { Workpiece, type PlannedStep } from './workpiece'

export interface PlanOptions {
  readonly variant?: Variant
  /** The side of the finished puzzle (as defined) to start with; the cheapest if not given. */
  readonly base?: Direction
  /** The piece (index) that the solver wants to take next. */
  readonly prefer?: number
  /** Where three go round: the first of them, to which the preferred one shall be the third. */
  readonly first?: number
  /** The hand that turns most; the right one if not given. */
  readonly hand?: Hand
  /** Colours as the copy has them; the definition's own if not given. */
  readonly scheme?: Scheme
}

interface Draft {
  readonly start: Start
  readonly stages: readonly { readonly stage: Stage; readonly steps: readonly PlannedStep[] }[]
  readonly turns: readonly Turn[]
  readonly cost: number
}

/** A route home from any reachable state of the puzzle, in the school's own way. */
export function plan(
  puzzle: Puzzle,
  school: School,
  state: State,
  options: PlanOptions = {},
): Result<Route> {
  const stages = stagesOf(school, options.variant ?? {})
  if (isUniversal(stages)) {
    const scheme = options.scheme ?? puzzle.definition.colours
    const { first, prefer: third } = options
    const wish = first === undefined || third === undefined ? undefined : { first, third }
    const route = planUniversally(puzzle, school, state, scheme, wish)
    return route.ok ? replayed(puzzle, route.value, state) : route
  }
  if (isShortest(stages)) {
    const route = planShortest(puzzle, school, state, options.hand)
    return route.ok ? replayed(puzzle, route.value, state) : route
  }
  if (!isReached(puzzle, state))
    return fail(
      'unreachable',
      'No turns lead here from the finished puzzle, so no turns lead home. A piece must have been put in or twisted by hand.',
    )
  const bases = options.base ? [options.base] : basesOf(puzzle, stages[0])
  const drafts = bases.map((base) => draftFrom(puzzle, school, stages, base, state, options))
  const best = drafts.reduce((a, b) => (isBetter(b, a) ? b : a))
  return replayed(puzzle, toRoute(puzzle, school, best, state, options), state)
}

export interface RankedStart {
  readonly base: Direction
  readonly colour: string
  readonly turns: number
  readonly stagesDone: number
  /** Pieces that are right before the first turn. */
  readonly right: number
}

/** All colours that one may start with, the cheapest first; none where it makes no difference. */
export function rankStarts(
  puzzle: Puzzle,
  school: School,
  state: State,
  options: PlanOptions = {},
): RankedStart[] {
  const stages = stagesOf(school, options.variant ?? {})
  if (isShortest(stages) || isUniversal(stages)) return []
  return basesOf(puzzle, stages[0])
    .map((base) => draftFrom(puzzle, school, stages, base, state, { hand: options.hand }))
    .sort((a, b) => (isBetter(a, b) ? -1 : 1))
    .map(({ start, turns, stages: drafted }) => ({
      base: start.base,
      colour: colourOfSide(puzzle, start.base, options.scheme),
      turns: countTurns(turns),
      stagesDone: start.stagesDone,
      right: rightAtStart(drafted),
    }))
}

function rightAtStart(drafted: Draft['stages']): number {
  const first = drafted.flatMap(({ steps }) => steps)[0]
  return first?.aim.kind === 'start' ? first.aim.already.length : 0
}

const isBetter = (a: Draft, b: Draft): boolean =>
  a.start.stagesDone !== b.start.stagesDone
    ? a.start.stagesDone > b.start.stagesDone
    : a.cost < b.cost

/** The cheapest plan for one base colour: the first stage decides where to begin. */
function draftFrom(
  puzzle: Puzzle,
  school: School,
  stages: readonly Stage[],
  base: Direction,
  state: State,
  {
    prefer,
    hand = 'right',
    scheme = puzzle.definition.colours,
  }: Pick<PlanOptions, 'prefer' | 'hand' | 'scheme'>,
): Draft {
  const starts = startsWith(puzzle, stages, base, state)
  const begun = starts.map((start) => {
    const work = new Workpiece(puzzle, state, start.frame, hand)
    const drafted =
      start.stagesDone < stages.length
        ? [doStage(puzzle, school, stages, start.stagesDone, start, work, scheme, prefer)]
        : []
    return { start, work, drafted }
  })
  const wanted = begun.filter(({ work }) => takesFirst(work, prefer))
  const { start, work, drafted } = (wanted.length > 0 ? wanted : begun).reduce((a, b) =>
    b.work.cost < a.work.cost ? b : a,
  )
  for (let index = start.stagesDone + 1; index < stages.length; index++)
    drafted.push(doStage(puzzle, school, stages, index, start, work, scheme))
  const trimmed = endWhenHome(puzzle, drafted)
  const turns = trimmed
    .flatMap(({ steps }) => steps)
    .flatMap((step) => step.turns.map((t) => t.turn))
  return { start, stages: trimmed, turns, cost: work.cost }
}

/**
 * Sometimes everything is home before the last turns, which then only turn both layers alike: the
 * route ends there.
 */
function endWhenHome(puzzle: Puzzle, drafted: Draft['stages']): Draft['stages'] {
  const last = drafted.at(-1)
  if (!last) return drafted
  for (const [nth, step] of last.steps.entries()) {
    let state = step.before
    for (const [at, { turn }] of step.turns.entries()) {
      if (at > 0 && isSolved(puzzle, state)) {
        const shortened = { ...step, turns: step.turns.slice(0, at), endsEarly: true }
        const steps = [...last.steps.slice(0, nth), shortened]
        return [...drafted.slice(0, -1), { ...last, steps }]
      }
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
    }
    if (isSolved(puzzle, state))
      return [...drafted.slice(0, -1), { ...last, steps: last.steps.slice(0, nth + 1) }]
  }
  return drafted
}

/** Whether the first piece that is brought home is the preferred one. */
function takesFirst({ steps }: Workpiece, prefer: number | undefined): boolean {
  const first = steps.find(({ aim }) => aim.kind === 'insert')?.aim
  return prefer !== undefined && first?.kind === 'insert' && first.piece === prefer
}

function doStage(
  puzzle: Puzzle,
  school: School,
  stages: readonly Stage[],
  index: number,
  start: Start,
  work: Workpiece,
  scheme: Scheme,
  prefer?: number,
) {
  const stage = stages[index]
  const before = work.steps.length
  const hold = holdFor(puzzle, stage, start.base, work.frame)
  const isDone = frameMeeting(puzzle, stage.goal, start.base, work.state) !== undefined
  // A stage that is done already asks for no hold of its own.
  if (!isDone) {
    const already = piecesMeeting(puzzle, stage.goal, start.base, work.state, work.frame)
    // What is left is planned from the hold that there is.
    if (stage.technique.kind !== 'rest') work.hold(hold)
    if (index === 0 && start.piece !== undefined)
      work.step({ kind: 'start', piece: start.piece, already }, [])
    const context = { puzzle, school, stage, base: start.base, prefer, hand: work.hand, scheme }
    runTechnique(context, stages[index - 1]?.goal ?? [], work)
  }
  return { stage, steps: work.steps.slice(before) }
}

function toRoute(
  puzzle: Puzzle,
  school: School,
  draft: Draft,
  state: State,
  options: PlanOptions,
): Route {
  const variant = fullVariant(school, options.variant ?? {})
  const scheme = options.scheme ?? puzzle.definition.colours
  const { base } = draft.start
  const all = stagesOf(school, variant)
  const stages = all.map((stage, index): RouteStage => {
    const steps = draft.stages.find((each) => each.stage === stage)?.steps ?? []
    return {
      id: stage.id,
      name: stage.name,
      aim: fillColours(puzzle, scheme, base, stage.aim),
      done: index < draft.start.stagesDone || steps.length === 0,
      steps: steps.map((_, nth) =>
        explainStep({ puzzle, stage, scheme, base, steps, nth, id: `${stage.id}.${nth + 1}` }),
      ),
    }
  })
  const explained = stages.flatMap(({ steps }) => steps)
  const algorithms = explained
    .map(({ algorithm }) => algorithm.join(' '))
    .filter((text) => text !== '')
  return {
    puzzle: puzzle.definition.id,
    school: school.id,
    variant,
    from: writeState(state),
    base: base.name,
    baseColour: colourOfSide(puzzle, base, scheme),
    stages,
    turnCount: countTurns(draft.turns),
    quarterCount: countQuarters(draft.turns),
    algorithms: [...new Set(algorithms)],
    looks: explained.length,
  }
}

/** The route again, turn by turn on the engine: every stage goal met in order, home at the end. */
export function replayed(puzzle: Puzzle, route: Route, from: State): Result<Route> {
  const state = new Uint8Array(from)
  for (const { name } of turnsOfRoute(route)) {
    const turn = puzzle.turnByName.get(name)
    if (!turn) return fail('defect', `The route names a turn that does not exist: ${name}.`)
    const block = blockOf(puzzle, state, turn)
    if (block) return fail('defect', `The route is wrong: ${blockWords(puzzle, turn, block)}`)
    turnFreely(puzzle, state, turn, state)
  }
  if (!isSolved(puzzle, state))
    return fail(
      'defect',
      'The route that was found does not lead home. This is a defect of the program.',
    )
  return ok(route)
}

export function colourOfSide(puzzle: Puzzle, side: Direction, scheme?: Scheme): string {
  const id = puzzle.definition.faces[side.name]
  return colourIn(scheme ?? puzzle.definition.colours, id).name
}

/** Whether the table of all states plans it as a whole. */
export const isShortest = (stages: readonly Stage[]): boolean =>
  stages.every(({ technique }) => technique.kind === 'optimal')
