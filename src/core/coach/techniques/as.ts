/**
 * As: a stage of another school, done on the smaller box that all is joined into. Its steps come back with the words
 * that they have there, their pieces as all that is joined into each, their turns as those of the real puzzle.
 */
import { isNothing, type Coordinate } from '../../analysis/invariants'
import { joinedAs, joinedState, type Joined } from '../../analysis/joined'
import type { Puzzle } from '../../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../../rotation'
import type { Condition, School, Stage, Technique } from '../../schools/school'
import { withinReach } from '../../analysis/placements'
import { taught } from '../../schools/taught'
import { writtenSchool } from '../../schools/written'
import { isSolved, rotateState, writeState, type State } from '../../state'
import { accountOf, named } from '../../universal/account'
import { workOf } from '../../universal/orbitsAtWork'
import { baseKind } from '../../phrases'
import { explainStep } from '../explain'
import { frameMeeting } from '../goal'
import { leavesOpen } from '../naming'
import type { RouteStep } from '../route'
import { NoWay, Workpiece, type StageContext } from '../workpiece'
import { doRest } from './universally'

type AsTechnique = Extract<Technique, { kind: 'as' }>

/** A stage of the smaller puzzle, with what it follows. */
export interface SmallLesson {
  readonly puzzle: Puzzle
  readonly school: School
  readonly stage: Stage
  readonly goalBefore: readonly Condition[]
  readonly joined: Joined
}

export function smallLesson(
  puzzle: Puzzle,
  { size, school: id, stages: [stageId] }: AsTechnique,
  goalBefore: readonly Condition[],
): SmallLesson {
  const joined = joinedAs(puzzle, size)
  if (!joined) throw new Error('a stage is done as no smaller box')
  const school = taught(joined.small, writtenSchool(id))
  const stage = school.stages.find((each) => each.id === stageId)
  if (!stage) throw new Error(`the school ${id} has no stage ${stageId}`)
  return { puzzle: joined.small, school, stage, goalBefore: asSmall(goalBefore), joined }
}

/** What is asked of the smaller box's own pieces; that they are joined goes without saying there. */
const asSmall = (goal: readonly Condition[]): Condition[] =>
  goal.flatMap((condition) => {
    if (!condition.select?.as || condition.must === 'together' || condition.must === 'solvable')
      return []
    return [{ ...condition, select: { ...condition.select, as: undefined } }]
  })

/** How stages of the smaller puzzle are done. */
interface Player {
  readonly run: (context: StageContext, goalBefore: readonly Condition[], work: Workpiece) => void
  readonly readsByLook: (stage: Stage) => boolean
}

export function playAs(
  context: StageContext,
  work: Workpiece,
  technique: AsTechnique,
  goalBefore: readonly Condition[],
  { run, readsByLook }: Player,
): void {
  const { puzzle, base, scheme, prefer, first } = context
  if (isSolved(puzzle, work.held().state)) return
  const { joined, ...lesson } = smallLesson(puzzle, technique, goalBefore)
  const isFirst = !context.school.stages
    .slice(0, context.school.stages.indexOf(context.stage))
    .some((stage) => stage.technique.kind === 'as')
  const { state, frame } = work.held()
  const seen = joinedState(puzzle, joined, state)
  if (!seen) throw new Error('what should be joined is not')
  const read = rotateState(withinReach(joined.small, rotateState(seen, INVERSE[frame])), frame)
  if (isFirst && !canBeFinished(lesson.puzzle, rotateState(read, INVERSE[frame])))
    return doRest(context, work, 'noWayOn')
  const whole = (piece: number | undefined) =>
    piece === undefined ? undefined : joined.wholeOf[piece]
  const isOpen = leavesOpen(lesson.puzzle) && !readsByLook(lesson.stage)
  const reading = isOpen ? readingOf(lesson.puzzle, joined, work, read) : read
  const small = new Workpiece(lesson.puzzle, reading, frame, work.hand)
  const own = { ...context, ...lesson, prefer: whole(prefer), first: whole(first) }
  const again = isOpen ? dueAgain(lesson, base, reading) : undefined
  const stages: Stage[] = []
  try {
    if (again) run({ ...own, stage: again.stage }, again.goalBefore, small)
    stages.push(...small.steps.map(() => again?.stage ?? lesson.stage))
    run(own, lesson.goalBefore, small)
  } catch (error) {
    if (!(error instanceof NoWay)) throw error
    // Equal pieces are meant in a way that the stage has nothing for.
    return doRest(context, work, 'noWayOn')
  }
  const note = (words: RouteStep, nth: number) =>
    isFirst && nth === 0 ? { note: [{ kind: 'countsAsOne' } as const, ...(words.note ?? [])] } : {}
  small.steps.forEach((step, nth) => {
    const words = explainStep({
      puzzle: lesson.puzzle,
      stage: stages[nth] ?? lesson.stage,
      scheme,
      base,
      steps: small.steps,
      nth,
      id: `${nth}`,
    })
    work.step(
      {
        kind: 'given',
        step: {
          ...inParts(puzzle, joined, words, {
            real: work.held().state,
            read: step.before,
            opening: multiply(work.held().frame, INVERSE[work.frame]),
          }),
          as: technique.size,
          ...note(words, nth),
        },
      },
      step.turns.map((each) => ({ ...each, turn: joined.turnFor(each.turn) })),
    )
  })
}

/** The stage before, where it was met for the eye only: equal pieces are meant the other way. */
function dueAgain(
  { puzzle, school, stage, goalBefore }: Omit<SmallLesson, 'joined'>,
  base: StageContext['base'],
  state: State,
): { stage: Stage; goalBefore: readonly Condition[] } | undefined {
  if (frameMeeting(puzzle, goalBefore, base, state) !== undefined) return undefined
  const index = school.stages.indexOf(stage)
  const [before, earlier] = [school.stages[index - 1], school.stages[index - 2]]
  return before?.base === stage.base
    ? { stage: before, goalBefore: earlier?.goal ?? [] }
    : undefined
}

/** For a piece of work the position in which equal pieces got their names, and these. */
const names = new WeakMap<Workpiece, { readonly real: State; readonly read: State }>()

/**
 * The state of the smaller puzzle with equal pieces told apart: once, when it is first asked, so that outer layers
 * can finish it if that can be, and if not, so that as few things as can be must be mended; from then on pieces keep
 * their names.
 */
function readingOf(small: Puzzle, { partsOf }: Joined, work: Workpiece, read: State): State {
  const { state, frame } = work.held()
  const { puzzle } = work
  const before = names.get(work)
  if (before) {
    const bySlot = new Map([...before.real].map((r, p) => [puzzle.slot[24 * p + r], p]))
    return before.read.map((r, whole) => {
      const p = bySlot.get(puzzle.slot[24 * partsOf[whole][0] + r]) as number
      return multiply(multiply(state[p], INVERSE[before.real[p]]), r)
    })
  }
  const reading = rotateState(namedToFinish(small, rotateState(read, INVERSE[frame])), frame)
  names.set(work, { real: state, read: reading })
  return reading
}

/** What may have to be mended on the way: nothing, two exchanged edges, a flipped one, both; as it adds to the sums. */
function mendsOf(small: Puzzle): number[][] {
  const { coordinates } = accountOf(small)
  const { orbits } = workOf(small).sums
  const edges = [...orbits.keys()].filter(
    (o) => baseKind(small.pieces[orbits[o].places[0]].kind) === 'edge',
  )
  // A flipped edge adds to its sum of twists, two that are exchanged to odd and even.
  const mend = (orbit: number, what: readonly Coordinate['what'][]) =>
    coordinates.map((each) => Number(each.orbit === orbit && what.includes(each.what)))
  return [
    coordinates.map(() => 0),
    ...edges.map((orbit) => mend(orbit, ['parity'])),
    ...edges.map((orbit) => mend(orbit, ['twist'])),
    ...edges.map((orbit) => mend(orbit, ['twist', 'parity'])),
  ]
}

const plus = (small: Puzzle, vector: readonly number[], other: readonly number[]): number[] =>
  vector.map((entry, c) => (entry + other[c]) % accountOf(small).coordinates[c].modulus)

/** Whether outer layers and what is mended can finish a state in the frame, as it looks. */
function canBeFinished(small: Puzzle, state: State): boolean {
  const { seen, vectorOf } = accountOf(small)
  const vector = vectorOf(state)
  return mendsOf(small).some((mend) => isNothing(seen, plus(small, vector, mend)))
}

/** For a state in the frame. */
function namedToFinish(small: Puzzle, state: State): State {
  const { span } = accountOf(small)
  for (const mend of mendsOf(small)) {
    const found = named(small, state, (vector) => isNothing(span, plus(small, vector, mend)))
    if (found) return found.state
  }
  return state
}

/** A step of the smaller puzzle told of the real one: its pieces are what lies in their places. */
function inParts(
  puzzle: Puzzle,
  joined: Joined,
  step: RouteStep,
  {
    real,
    read,
    opening,
  }: { readonly real: State; readonly read: State; readonly opening: Rotation },
): RouteStep {
  const { small, partsOf, turnFor } = joined
  const bySlot = new Map([...real].map((r, p) => [puzzle.slot[24 * p + r], puzzle.pieces[p].id]))
  const indexOf = (id: string) => small.pieces.findIndex((piece) => piece.id === id)
  const parts = (id: string) => {
    const whole = indexOf(id)
    return partsOf[whole].map((p) => bySlot.get(puzzle.slot[24 * p + read[whole]]) as string)
  }
  const places = (id: string) => partsOf[indexOf(id)].map((p) => puzzle.pieces[p].id)
  const own = joinedState(puzzle, joined, real)
  const isReadOtherwise = own === undefined || own.some((r, whole) => r !== read[whole])
  const turn = (name: string) => {
    const found = small.turnByName.get(name)
    return found ? turnFor(found).name : name
  }
  return {
    ...step,
    pieces: step.pieces.flatMap(parts),
    places: step.places.flatMap(places),
    ...(isReadOtherwise ? { reading: writeState(rotateState(read, INVERSE[opening])) } : {}),
    ...(step.lines
      ? {
          lines: step.lines.map((line) => ({
            ...line,
            piece: parts(line.piece)[0],
            ...(line.to === undefined ? {} : { to: places(line.to)[0] }),
          })),
        }
      : {}),
    others: step.others.map((other) => ({
      ...other,
      piece: parts(other.piece)[0],
      ...(other.first === undefined ? {} : { first: parts(other.first)[0] }),
    })),
    algorithm: step.algorithm.map(turn),
  }
}
