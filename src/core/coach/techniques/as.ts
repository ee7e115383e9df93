/**
 * As: a stage of another school, done on the smaller box that all is joined into. Its steps come back with the words
 * that they have there, their pieces as all that is joined into each, their turns as those of the real puzzle.
 */
import { joinedAs, joinedState, type Joined } from '../../analysis/joined'
import type { Condition, School, Stage, Technique } from '../../schools/school'
import { taught } from '../../schools/taught'
import { writtenSchool } from '../../schools/written'
import type { Puzzle } from '../../puzzle/compile'
import type { State } from '../../state'
import { explainStep } from '../explain'
import { frameMeeting, piecesMeeting, piecesOf } from '../goal'
import { leavesOpen, otherReadings } from '../naming'
import type { RouteStep } from '../route'
import { Workpiece, type StageContext } from '../workpiece'

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
  const small = new Workpiece(lesson.puzzle, reading(lesson, base, read, frame), frame, work.hand)
  run(
    { ...context, ...lesson, prefer: whole(prefer), first: whole(first) },
    lesson.goalBefore,
    small,
  )
  small.steps.forEach((step, nth) => {
    const words = explainStep({
      puzzle: lesson.puzzle,
      stage: lesson.stage,
      scheme,
      base,
      steps: small.steps,
      nth,
      id: `${nth}`,
    })
    work.step(
      { kind: 'given', step: inParts(puzzle, joined, words) },
      step.turns.map((each) => ({ ...each, turn: joined.turnFor(each.turn) })),
    )
  })
}

/** Equal pieces named so that turns of the smaller box lead home, if that can be; the most right first. */
function reading(
  { puzzle, stage, goalBefore }: Omit<SmallLesson, 'joined'>,
  base: StageContext['base'],
  read: State,
  frame: number,
): State {
  if (!leavesOpen(puzzle)) return read
  const settled = goalBefore
    .filter(({ must }) => must === 'home')
    .flatMap((condition) => [...piecesOf(puzzle, condition, base)])
  const rank = (state: State) =>
    frameMeeting(puzzle, goalBefore, base, state) === undefined
      ? -1
      : piecesMeeting(puzzle, stage.goal, base, state, frame).length
  return otherReadings(puzzle, read, frame, settled).reduce((a, b) => (rank(b) > rank(a) ? b : a))
}

/** A step of the smaller puzzle told of the real one. */
function inParts(puzzle: Puzzle, { small, partsOf, turnFor }: Joined, step: RouteStep): RouteStep {
  const parts = (id: string) =>
    partsOf[small.pieces.findIndex((piece) => piece.id === id)].map((p) => puzzle.pieces[p].id)
  const turn = (name: string) => {
    const found = small.turnByName.get(name)
    return found ? turnFor(found).name : name
  }
  return {
    ...step,
    pieces: step.pieces.flatMap(parts),
    places: step.places.flatMap(parts),
    ...(step.lines
      ? {
          lines: step.lines.map((line) => ({
            ...line,
            piece: parts(line.piece)[0],
            ...(line.to === undefined ? {} : { to: parts(line.to)[0] }),
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
