/**
 * As: a stage of another school, done on the smaller box that all is joined into. Its steps come back with the words
 * that they have there, their pieces as all that is joined into each, their turns as those of the real puzzle.
 */
import { joinedAs, joinedState, type Joined } from '../../analysis/joined'
import { namedAtHome } from '../../analysis/lookAlikes'
import { INVERSE, type Rotation } from '../../rotation'
import type { Condition, School, Stage, Technique } from '../../schools/school'
import { taught } from '../../schools/taught'
import { writtenSchool } from '../../schools/written'
import type { Puzzle } from '../../puzzle/compile'
import { rotateState, writeState, type State } from '../../state'
import { explainStep } from '../explain'
import { frameMeeting, piecesMeeting, piecesOf } from '../goal'
import { leavesOpen, otherReadings, readingsOf } from '../naming'
import { isNothing } from '../../analysis/invariants'
import { accountOf } from '../../universal/account'
import type { RouteStep } from '../route'
import { NoWay, Workpiece, type StageContext } from '../workpiece'

type AsTechnique = Extract<Technique, { kind: 'as' }>

/** How the cards are read from here on. */
const JOINED_NOTE =
  'From here on edges that are joined count as one edge, centres that are joined as one centre.'

/** Readings of the smaller puzzle that are compared. */
const MOST_READINGS = 300

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
    const { as: _, ...select } = condition.select
    return [{ ...condition, select }]
  })

export function playAs(
  context: StageContext,
  work: Workpiece,
  technique: AsTechnique,
  goalBefore: readonly Condition[],
  run: (context: StageContext, goalBefore: readonly Condition[], work: Workpiece) => void,
): void {
  const { puzzle, base, scheme, prefer, first } = context
  const { joined, ...lesson } = smallLesson(puzzle, technique, goalBefore)
  const { state, frame } = work.held()
  const read = joinedState(puzzle, joined, state)
  if (!read) throw new Error('what should be joined is not')
  const whole = (piece: number | undefined) =>
    piece === undefined ? undefined : joined.wholeOf[piece]
  const own = { ...context, ...lesson, prefer: whole(prefer), first: whole(first) }
  const done = firstThatLeadsOn(readings(lesson, base, read, frame), (reading) => {
    const small = new Workpiece(lesson.puzzle, reading, frame, work.hand)
    const again = dueAgain(lesson, base, reading)
    if (again) run({ ...own, stage: again.stage }, again.goalBefore, small)
    const stages = small.steps.map(() => again?.stage ?? lesson.stage)
    run(own, lesson.goalBefore, small)
    return { steps: small.steps, stages }
  })
  const isFirst = !context.school.stages
    .slice(0, context.school.stages.indexOf(context.stage))
    .some((stage) => stage.technique.kind === 'as')
  const note = (words: RouteStep, nth: number) =>
    isFirst && nth === 0 ? { note: [JOINED_NOTE, words.note].filter(Boolean).join(' ') } : {}
  done.steps.forEach((step, nth) => {
    const words = explainStep({
      puzzle: lesson.puzzle,
      stage: done.stages[nth] ?? lesson.stage,
      scheme,
      base,
      steps: done.steps,
      nth,
      id: `${nth}`,
    })
    work.step(
      {
        kind: 'given',
        step: {
          ...inParts(puzzle, joined, words, { real: work.held().state, read: step.before }),
          as: technique.size,
          ...note(words, nth),
        },
      },
      step.turns.map((each) => ({ ...each, turn: joined.turnFor(each.turn) })),
    )
  })
}

/** The stage before, where a reading has lost what it reached: two equal pieces may have to be meant the other way. */
function dueAgain(
  { puzzle, school, stage, goalBefore }: Omit<SmallLesson, 'joined'>,
  base: StageContext['base'],
  state: State,
): { stage: Stage; goalBefore: readonly Condition[] } | undefined {
  if (frameMeeting(puzzle, goalBefore, base, state) !== undefined) return undefined
  const index = school.stages.indexOf(stage)
  const [before, earlier] = [school.stages[index - 1], school.stages[index - 2]]
  if (!before || before.base !== stage.base) return undefined
  return { stage: before, goalBefore: earlier?.goal ?? [] }
}

/** Of several readings the first from which the technique gets on. */
function firstThatLeadsOn<T>(states: readonly State[], run: (state: State) => T): T {
  for (const [i, state] of states.entries())
    try {
      return run(state)
    } catch (error) {
      if (!(error instanceof NoWay) || i === states.length - 1) throw error
    }
  throw new Error('a position has no reading')
}

/**
 * Equal pieces named so that what came before is kept and turns of the smaller box lead home, if that can be; the
 * most right first.
 */
function readings(
  { puzzle, stage, goalBefore }: Omit<SmallLesson, 'joined'>,
  base: StageContext['base'],
  read: State,
  frame: Rotation,
): State[] {
  if (!leavesOpen(puzzle)) return [read]
  const settled = goalBefore
    .filter(({ must }) => must === 'home')
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
  // What looks at home is taken to be at home.
  const natural = rotateState(namedAtHome(puzzle, rotateState(read, INVERSE[frame])), frame)
  const { span, vectorOf } = accountOf(puzzle)
  const rank = (state: State) => {
    const isKept = frameMeeting(puzzle, goalBefore, base, state) !== undefined
    const isFinishable = isNothing(span, vectorOf(rotateState(state, INVERSE[frame])))
    const right = piecesMeeting(puzzle, stage.goal, base, state, frame).length
    return (Number(isKept) * 2 + Number(isFinishable)) * puzzle.pieces.length + right
  }
  const near = otherReadings(puzzle, natural, frame, settled, MOST_READINGS)
  return [...near, ...readingsOf(puzzle, read)]
    .map((state) => ({ state, rank: rank(state) }))
    .sort((a, b) => b.rank - a.rank)
    .map(({ state }) => state)
}

/** A step of the smaller puzzle told of the real one: its pieces are what lies in their places. */
function inParts(
  puzzle: Puzzle,
  joined: Joined,
  step: RouteStep,
  { real, read }: { readonly real: State; readonly read: State },
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
    ...(isReadOtherwise ? { reading: writeState(read) } : {}),
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
