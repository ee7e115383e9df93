/** Plans a route for a state in a school, and replays it before it is given out. */
import { whyBlocked } from '../words/whyBlocked'
import { ofPieces } from '../claims/claim'
import { isReached } from '../universal/account'
import { anchorsOf } from '../analysis/anchors'
import { canBlock, holdOf } from '../analysis/placements'
import { sideName } from '../analysis/who'
import type { Scheme } from '../puzzle/colours'
import type { Direction } from '../puzzle/directions'
import type { Puzzle, Turn } from '../puzzle/compile'
import { countJoined } from '../notation/rewrite'
import { fail, ok, type Result } from '../result'
import type { Rotation } from '../rotation'
import { schoolsOf } from '../schools'
import { taught } from '../schools/taught'
import { fullVariant, stagesOf, type School, type Stage, type Variant } from '../schools/school'
import type { Hand } from '../notation/handCost'
import { isSolved, turnFreely, writeState, type State } from '../state'
import { aimWords, explainStep } from './explain'
import { frameMeeting, isMetIn, piecesMeeting, piecesOf } from './goal'
import { withMeetings } from './meetings'
import { turnsOfRoute, type Route, type RouteStage, type RouteStep, withSaid } from './route'
import {
  leavesOpen,
  nameOf,
  namingBetween,
  otherReadings,
  readingsOf,
  really,
  writeNaming,
  type Naming,
} from './naming'
import { basesOf, holdFor, mostPromising, startsWith, type Start } from './start'
import { plansAsWhole, prepareFor, readsByLook, runTechnique } from './technique'
import { PlanProblem, Workpiece, type PlannedStep, type PlannedTurn } from './workpiece'

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
  /** The last position as it is read: with equal pieces told apart. */
  readonly end: State
  readonly start: Start
  readonly stages: readonly { readonly stage: Stage; readonly steps: readonly PlannedStep[] }[]
  readonly turns: readonly Turn[]
  readonly cost: number
  readonly found: Workpiece['found']
}

/** A route home from any reachable state of the puzzle, in the school's own way. */
export function plan(
  puzzle: Puzzle,
  given: School,
  state: State,
  options: PlanOptions = {},
): Result<Route> {
  prepareFor(puzzle, given)
  const school = asTaught(puzzle, given)
  const stages = stagesOf(school, options.variant ?? {})
  if (!canBlock(puzzle) && !isReached(puzzle, state))
    return fail(
      'unreachable',
      'No turns lead here from the finished puzzle, so no turns lead home. A piece must have been put in or twisted by hand.',
    )
  const possible = basesOf(puzzle, school, stages[0])
  if (options.base && !school.isWithoutBase && !possible.includes(options.base))
    return fail(
      'bad-base',
      `${school.name} cannot begin with ${colourOfSide(puzzle, options.base, options.scheme)} on this puzzle.`,
    )
  const bases =
    options.base && !school.isWithoutBase
      ? [options.base]
      : mostPromising(puzzle, school, stages, possible, state)
  try {
    const readings = readingsFor(puzzle, stages, state)
    const drafts = bases.map((base) =>
      draftFor(puzzle, school, stages, base, state, readings, options),
    )
    const best = drafts.reduce((a, b) => (isBetter(b, a) ? b : a))
    const route = toRoute(puzzle, school, best, state, options)
    return replayed(puzzle, withMeetings(puzzle, route), state)
  } catch (error) {
    if (error instanceof PlanProblem) return { ok: false, problem: error.problem }
    throw error
  }
}

/** What is derived for one puzzle may have been found anew; what is written is taught as the puzzle asks. */
function asTaught(puzzle: Puzzle, school: School): School {
  const now = school.isWithoutBase && schoolsOf(puzzle).find(({ id }) => id === school.id)
  return taught(puzzle, now || school)
}

const readingsFor = (puzzle: Puzzle, stages: readonly Stage[], state: State): readonly State[] =>
  stages.some(plansAsWhole) || stages.some(readsByLook) ? [state] : readingsOf(puzzle, state)

/** A draft from the most promising reading of the position. */
function draftFor(
  puzzle: Puzzle,
  school: School,
  stages: readonly Stage[],
  base: Direction,
  actual: State,
  readings: readonly State[],
  options: PlanOptions,
): Draft {
  const from = bestReading(puzzle, stages, base, readings)
  return draftFrom(puzzle, school, stages, base, from, { ...options, actual })
}

/** With the position as it is, under the pieces' own names: a wish is told in these. */
interface DraftOptions extends PlanOptions {
  readonly actual: State
}

/** The most promising reading: the most stages met, then the most pieces right. */
function bestReading(
  puzzle: Puzzle,
  stages: readonly Stage[],
  base: Direction,
  readings: readonly State[],
): State {
  if (readings.length === 1) return readings[0]
  const hold = holdOf(puzzle, readings[0]) ?? 0
  return readings
    .map((state) => ({ state, ...promise(puzzle, stages, base, state, hold) }))
    .reduce((a, b) => (b.met > a.met || (b.met === a.met && b.right > a.right) ? b : a)).state
}

function promise(
  puzzle: Puzzle,
  stages: readonly Stage[],
  base: Direction,
  state: State,
  frame: Rotation,
) {
  const met = stages.findLastIndex(
    ({ goal }) => frameMeeting(puzzle, goal, base, state) !== undefined,
  )
  const right = stages
    .slice(met + 1)
    .reduce((sum, { goal }) => sum + piecesMeeting(puzzle, goal, base, state, frame).length, 0)
  return { met, right }
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
  given: School,
  state: State,
  options: PlanOptions = {},
): RankedStart[] {
  if (given.isWithoutBase) return []
  const school = taught(puzzle, given)
  const stages = stagesOf(school, options.variant ?? {})
  const readings = readingsFor(puzzle, stages, state)
  return basesOf(puzzle, school, stages[0])
    .map((base) => draftFor(puzzle, school, stages, base, state, readings, { hand: options.hand }))
    .sort((a, b) => (isBetter(a, b) ? -1 : 1))
    .map(({ start, turns, stages: drafted }) => ({
      base: start.base,
      colour: colourOfSide(puzzle, start.base, options.scheme),
      turns: countJoined(puzzle, turns).turnCount,
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
  options: DraftOptions,
): Draft {
  const starts = startsWith(puzzle, school, stages, base, state)
  const { hand = 'right' } = options
  const begun = starts.map((start) => {
    const work = new Workpiece(puzzle, state, start.frame, hand)
    const course = { puzzle, school, stages, start, options }
    const drafted =
      start.stagesDone < stages.length ? [nextStage(course, start.stagesDone, work)] : []
    return { course, work, drafted }
  })
  const wanted = begun.filter(({ work }) => takesFirst(puzzle, work, options))
  const left = wanted.length > 0 ? wanted : begun
  // Where pieces that never travel leave several ways to mean the sides, each is followed to its end.
  if (anchorsOf(puzzle).length > 0)
    return left.map(toTheEnd).reduce((a, b) => (b.cost < a.cost ? b : a))
  return toTheEnd(left.reduce((a, b) => (b.work.cost < a.work.cost ? b : a)))
}

/** A draft whose first stage is done. */
function toTheEnd({
  course,
  work,
  drafted,
}: {
  readonly course: Course
  readonly work: Workpiece
  readonly drafted: readonly ReturnType<typeof nextStage>[]
}): Draft {
  const { puzzle, stages, start } = course
  const all = [...drafted]
  for (let index = start.stagesDone + 1; index < stages.length; index++)
    all.push(nextStage(withoutWish(course), index, work))
  const trimmed = endWhenHome(puzzle, all)
  const steps = trimmed.flatMap(({ steps: own }) => own)
  const turns = steps.flatMap(madeIn)
  const last = steps.at(-1)
  const end = last ? turnedAll(puzzle, last.before, madeIn(last)) : work.state
  return { end, start, stages: trimmed, turns, cost: work.cost, found: work.found }
}

/** In so many last stages readings that promise the same are compared by what they cost, so many of them. */
const COMPARED_STAGES = 3
const COMPARED_READINGS = 4

/** A stage, in one of the last ones from the reading that is cheapest to the end. */
function nextStage(course: Course, index: number, work: Workpiece) {
  const left = course.stages.slice(index)
  // What plans as a whole reads the position for itself, and is too dear to be tried.
  if (index > 0 && left.length <= COMPARED_STAGES && !left.some(plansAsWhole))
    work.state = cheapestReading(withoutWish(course), index, work)
  return doStage(course, index, work)
}

/** What is wished for concerns the first step. */
const withoutWish = (course: Course): Course => ({
  ...course,
  options: { ...course.options, prefer: undefined, first: undefined },
})

/** Of the readings that promise most, the one from which the way home is the cheapest. */
function cheapestReading(course: Course, index: number, work: Workpiece): State {
  const readings = readingsAgain(course, index, work)
  if (readings.length <= 1) return readings[0] ?? work.state
  const costs = readings.slice(0, COMPARED_READINGS).map((state) => {
    const trial = work.copy(state)
    for (let next = index; next < course.stages.length; next++) doStage(course, next, trial)
    return trial.cost
  })
  return readings[costs.indexOf(Math.min(...costs))]
}

/**
 * Sometimes everything is home before the last turns, which then only turn both layers alike: the
 * route ends there.
 */
function endWhenHome(puzzle: Puzzle, drafted: Draft['stages']): Draft['stages'] {
  const last = drafted.at(-1)
  if (!last) return drafted
  for (const [nth, step] of last.steps.entries()) {
    // What another school has planned is whole.
    if (step.aim.kind === 'given') return drafted
    let state = step.before
    if (isSolved(puzzle, state))
      return [...drafted.slice(0, -1), { ...last, steps: last.steps.slice(0, nth) }]
    for (const [at, { turn }] of step.turns.entries()) {
      const isHeld = step.turns.slice(0, at).every(({ role }) => role === 'hold')
      if (!isHeld && isSolved(puzzle, state)) {
        const turns = withoutDebt(step.turns.slice(0, at))
        const shortened = { ...step, turns, endsEarly: true }
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

/** A set-up that is not undone any more is no set-up: nothing is owed for it. */
function withoutDebt(turns: readonly PlannedTurn[]): readonly PlannedTurn[] {
  const open: number[] = []
  turns.forEach(({ role }, nth) => {
    if (role === 'setup') open.push(nth)
    if (role === 'undo') open.pop()
  })
  return turns.map((turn, nth) => (open.includes(nth) ? { ...turn, role: 'do' } : turn))
}

/** Whether the first piece that is brought home is the preferred one. */
function takesFirst(
  puzzle: Puzzle,
  { steps }: Workpiece,
  { prefer, actual }: DraftOptions,
): boolean {
  const first = steps.find(({ aim }) => aim.kind === 'insert')
  if (prefer === undefined || first?.aim.kind !== 'insert') return false
  const before = steps.slice(0, steps.indexOf(first)).flatMap(madeIn)
  const naming = namingBetween(puzzle, turnedAll(puzzle, actual, before), first.before)
  return really(naming, first.aim.piece) === prefer
}

/** What stays the same from stage to stage. */
interface Course {
  readonly puzzle: Puzzle
  readonly school: School
  readonly stages: readonly Stage[]
  readonly start: Start
  readonly options: DraftOptions
}

function doStage(course: Course, index: number, work: Workpiece) {
  const { puzzle, school, stages, start, options } = course
  const { prefer, first, actual, scheme = puzzle.definition.colours } = options
  const stage = stages[index]
  const before = work.steps.length
  const hold = holdFor(puzzle, stage, start.base, work.frame)
  const [best = work.state] = readingsAgain(course, index, work)
  work.state = best
  const held = work.held()
  const met = frameMeeting(puzzle, stage.goal, start.base, held.state)
  const isDone = met !== undefined
  // Where nothing tells yet which side is which, they are meant as the stage is done already.
  if (isDone && !plansAsWhole(stage) && !isMetIn(puzzle, stage.goal, start.base, held))
    work.mean(met)
  // A stage that is done already asks for no hold of its own.
  if (!isDone || plansAsWhole(stage)) {
    const already = piecesMeeting(puzzle, stage.goal, start.base, work.state, work.frame)
    // What is wished for goes by the name that it has in this reading; nothing has been turned yet.
    const naming = prefer === undefined ? [] : namingBetween(puzzle, actual, work.state)
    const wished = (piece: number | undefined) =>
      piece === undefined ? undefined : nameOf(naming, piece)
    work.hold(hold)
    if (index === 0 && start.piece !== undefined)
      work.step({ kind: 'start', piece: start.piece, already }, [])
    const { base } = start
    const { hand } = work
    const context = {
      puzzle,
      school,
      stage,
      base,
      prefer: wished(prefer),
      first: wished(first),
      hand,
      scheme,
    }
    runTechnique(context, stages[index - 1]?.goal ?? [], work)
  }
  return { stage, steps: work.steps.slice(before) }
}

/**
 * Which of equal pieces is which is decided as late as it can be: at each stage those are taken for its own
 * that lie best for it. What earlier stages have brought home keeps its name. The readings that promise most,
 * as it is read now first where that is one of them; none where nothing is open.
 */
function readingsAgain(
  { puzzle, stages, start: { base } }: Course,
  index: number,
  work: Workpiece,
): State[] {
  if (plansAsWhole(stages[index]) || stages.some(readsByLook) || !leavesOpen(puzzle)) return []
  const before = stages[index - 1]?.goal ?? []
  if (frameMeeting(puzzle, stages[index].goal, base, work.state) !== undefined) return []
  const settled = before
    .filter(({ must }) => must === 'home')
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
  const rank = (state: State) =>
    frameMeeting(puzzle, before, base, state) === undefined
      ? -1
      : piecesMeeting(puzzle, stages[index].goal, base, state, work.frame).length
  const ranked = otherReadings(puzzle, work.state, work.frame, settled).map((state) => ({
    state,
    rank: rank(state),
  }))
  const most = Math.max(...ranked.map((each) => each.rank))
  return ranked.filter((each) => each.rank === most).map(({ state }) => state)
}

function toRoute(
  puzzle: Puzzle,
  school: School,
  draft: Draft,
  state: State,
  options: PlanOptions,
): Omit<Route, 'turnCount' | 'quarterCount'> {
  const variant = fullVariant(school, options.variant ?? {})
  const scheme = options.scheme ?? puzzle.definition.colours
  const { base } = draft.start
  // The last reading holds for the whole way: what it calls otherwise was not home before.
  const naming = namingBetween(puzzle, turnedAll(puzzle, state, draft.turns), draft.end)
  let actual = state
  const namingOfStep = (step: PlannedStep): Naming => {
    const own = namingBetween(puzzle, actual, step.before)
    actual = turnedAll(puzzle, actual, madeIn(step))
    return own
  }
  const all = stagesOf(school, variant)
  const stages = all.map((stage, index): RouteStage => {
    const steps = draft.stages.find((each) => each.stage === stage)?.steps ?? []
    return {
      id: stage.id,
      name: stage.name,
      aim: aimWords(puzzle, scheme, base, stage),
      done: index < draft.start.stagesDone || steps.length === 0,
      steps: steps.map((step, nth) =>
        withRealPieces(
          puzzle,
          namingOfStep(step),
          explainStep({ puzzle, stage, scheme, base, steps, nth, id: `${stage.id}.${nth + 1}` }),
        ),
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
    ...(naming.length > 0 ? { naming: writeNaming(puzzle, naming) } : {}),
    base: base.name,
    baseColour: school.isWithoutBase ? '' : colourOfSide(puzzle, base, scheme),
    stages,
    algorithms: [...new Set(algorithms)],
    looks: explained.length,
    ...draft.found,
  }
}

const madeIn = ({ turns }: PlannedStep): Turn[] => turns.map(({ turn }) => turn)

function turnedAll(puzzle: Puzzle, from: State, turns: readonly Turn[]): State {
  const state = new Uint8Array(from)
  for (const turn of turns) turnFreely(puzzle, state, turn, state)
  return state
}

/** The pieces of a step under their own names, whatever they are taken for. */
function withRealPieces(puzzle: Puzzle, naming: Naming, step: RouteStep): RouteStep {
  if (naming.length === 0) return step
  const own = (id: string) =>
    puzzle.pieces[
      really(
        naming,
        puzzle.pieces.findIndex((piece) => piece.id === id),
      )
    ].id
  // Of a smaller box it is told by the names that its pieces have there.
  const told = step.as ? step : withSaid(step, (said) => ofPieces(said, own))
  return {
    ...told,
    pieces: told.pieces.map(own),
    ...(told.lines
      ? { lines: told.lines.map((line) => ({ ...line, piece: own(line.piece) })) }
      : {}),
    others: told.others.map((other) => ({
      ...other,
      piece: own(other.piece),
      ...(other.first === undefined ? {} : { first: own(other.first) }),
    })),
  }
}

/** The route again, turn by turn on the engine: every stage goal met in order, home at the end. */
export function replayed(puzzle: Puzzle, route: Route, from: State): Result<Route> {
  const state = new Uint8Array(from)
  for (const { name } of turnsOfRoute(route)) {
    const turn = puzzle.turnByName.get(name)
    if (!turn) return fail('defect', `The route names a turn that does not exist: ${name}.`)
    const why = whyBlocked(puzzle, state, turn)
    if (why) return fail('defect', `The route is wrong: ${why}`)
    turnFreely(puzzle, state, turn, state)
  }
  if (!isSolved(puzzle, state))
    return fail(
      'defect',
      'The route that was found does not lead home. This is a defect of the program.',
    )
  return ok(route)
}

/** The colour of a side, or the piece in its middle where it has none. */
export const colourOfSide = (puzzle: Puzzle, side: Direction, scheme?: Scheme): string =>
  sideName(puzzle, scheme ?? puzzle.definition.colours, side)
