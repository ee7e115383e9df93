/** A school as it is taught on one puzzle: what the puzzle never asks for is left out. */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { capsInOrder } from '../analysis/caps'
import { anchorsOf } from '../analysis/anchors'
import { joinedAs } from '../analysis/joined'
import { dot, subtract } from '../geometry/vector'
import { directionOfLetter, turnDirection, type FaceLetter } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, rotate, ROTATION_COUNT, type Rotation, type Vector } from '../rotation'
import { baseKind } from '../phrases'
import { endsOf } from './ends'
import type { Condition, Fact, School, Selection, Stage, Technique } from './school'
import { writtenSchool } from './written'

const known = new WeakMap<Puzzle, WeakMap<School, School>>()

export function taught(puzzle: Puzzle, school: School): School {
  const schools = known.get(puzzle) ?? new WeakMap<School, School>()
  known.set(puzzle, schools)
  const found = schools.get(school)
  if (found) return found
  const hold = holdAsWritten(puzzle, school)
  const held = hold === IDENTITY ? school.stages : school.stages.map((each) => inHold(each, hold))
  const sized = held.map((stage) => ofSize(puzzle, withLayers(puzzle, stage)))
  const written = inEachBox(puzzle, withJoined(puzzle, withBelt(puzzle, sized)))
  const stages = withCaps(puzzle, written).filter(
    ({ asks }) => asks === undefined || holds(puzzle, asks),
  )
  const isAsWritten =
    stages.length === school.stages.length && stages.every((stage, i) => stage === school.stages[i])
  const own = isAsWritten ? school : { ...school, stages }
  schools.set(school, own)
  schools.set(own, own)
  return own
}

/** Whether a turn of some centre in its place can be seen; of more than three layers of what is joined into one. */
function doCentresTell(puzzle: Puzzle): boolean {
  const { mechanism } = puzzle.definition
  const small =
    mechanism.kind === 'box' && Math.max(...mechanism.size) > 3
      ? joinedAs(puzzle, mechanism.size.map((n) => Math.min(n, 3)) as unknown as Vector)?.small
      : puzzle
  return (
    small !== undefined &&
    anchorsOf(small).some(
      (p) =>
        baseKind(small.pieces[p].kind) === 'centre' && lookAlikesOf(small).inPlace[p].looks > 1,
    )
  )
}

function holds(puzzle: Puzzle, fact: Fact): boolean {
  switch (fact) {
    case 'centres tell':
      return doCentresTell(puzzle)
    case 'no centre tells':
      return !doCentresTell(puzzle)
    case 'has a belt':
      return hasBelt(puzzle)
  }
}

/** A smaller box with no layers along an axis has as many as there are. */
function ofSize({ definition: { mechanism } }: Puzzle, stage: Stage): Stage {
  if (mechanism.kind !== 'box') return stage
  const filled = (size: Vector) =>
    size.map((n, axis) => n || mechanism.size[axis]) as unknown as Vector
  const isOpen = (size: Vector | undefined) => size?.includes(0) ?? false
  const inSize = (select: Selection): Selection =>
    select.as && isOpen(select.as) ? { ...select, as: filled(select.as) } : select
  const technique = { ...stage.technique }
  const selects = [
    ...stage.goal.map(({ select }) => select?.as),
    'select' in technique ? technique.select?.as : undefined,
    technique.kind === 'as' ? technique.size : undefined,
  ]
  if (!selects.some(isOpen)) return stage
  if (technique.kind === 'as') technique.size = filled(technique.size)
  if ('select' in technique && technique.select) technique.select = inSize(technique.select)
  const goal = stage.goal.map((condition) =>
    condition.select ? { ...condition, select: inSize(condition.select) } : condition,
  )
  return { ...stage, goal, technique } as Stage
}

/** Stages of other schools written out, as they are on the smaller box; a remedy keeps what came before. */
function withJoined(puzzle: Puzzle, stages: readonly Stage[]): readonly Stage[] {
  const found: Stage[] = []
  for (const stage of stages) {
    const { technique } = stage
    if (technique.kind === 'remedy')
      found.push({ ...stage, goal: [...(found.at(-1)?.goal ?? []), ...stage.goal] })
    else if (technique.kind === 'as') found.push(...stagesAs(puzzle, stage, technique))
    else found.push(stage)
  }
  return found.length === stages.length && found.every((stage, i) => stage === stages[i])
    ? stages
    : found
}

function stagesAs(
  puzzle: Puzzle,
  { goal }: Stage,
  technique: Extract<Technique, { kind: 'as' }>,
): Stage[] {
  const { size, school, stages } = technique
  const small = joinedAs(puzzle, size)?.small
  if (!small) return []
  return taught(small, writtenSchool(school))
    .stages.filter(({ id }) => stages.includes(id))
    .map((stage) => ({
      ...stage,
      when: undefined,
      asks: undefined,
      for: undefined,
      goal: [
        ...stage.goal.map((condition) => ({
          ...condition,
          select: { ...(condition.select ?? { layers: [condition.layer] }), as: size },
        })),
        ...goal,
      ],
      technique: { ...technique, stages: [stage.id] },
    }))
}

/** Without sequences of layers that a shorter box has not. */
function withLayers({ definition: { mechanism } }: Puzzle, stage: Stage): Stage {
  const { technique } = stage
  if (mechanism.kind !== 'box' || technique.kind !== 'join') return stage
  const isThere = (text: string) =>
    [...text.matchAll(/(\d)([UDFBRL])/g)].every(([, nth, letter]) => {
      const axis = directionOfLetter(letter as FaceLetter).vector.findIndex((c) => c !== 0)
      return Number(nth) <= mechanism.size[axis]
    })
  const sequences = technique.sequences.filter(isThere)
  return sequences.length === technique.sequences.length
    ? stage
    : { ...stage, technique: { ...technique, sequences } }
}

/** Without the stages, and what is asked, of a belt that is not there. */
function withBelt(puzzle: Puzzle, stages: readonly Stage[]): readonly Stage[] {
  const hasEnds = endsOf(puzzle.definition) !== undefined
  return hasEnds && !hasBelt(puzzle) ? without(stages, (select) => select?.box === 0) : stages
}

/** Between two ends with an odd number of layers. */
const hasBelt = ({ definition }: Puzzle): boolean => (endsOf(definition)?.length ?? 0) % 2 === 1

/** Without the stages, and what is asked, of caps that are not there or come last. */
function withCaps(puzzle: Puzzle, stages: readonly Stage[]): readonly Stage[] {
  return without(
    stages,
    (select) => typeof select?.cap === 'number' && select.cap >= capsInOrder(puzzle).length,
  )
}

function without(
  stages: readonly Stage[],
  isOther: (select: Selection | undefined) => boolean,
): readonly Stage[] {
  const isLeft = ({ technique }: Stage) => 'select' in technique && isOther(technique.select)
  return stages
    .filter((stage) => !isLeft(stage))
    .map((stage) =>
      stage.goal.some(({ select }) => isOther(select))
        ? { ...stage, goal: stage.goal.filter(({ select }) => !isOther(select)) }
        : stage,
    )
}

/** Stages for every box written out for each, the innermost first. Each keeps what the ones before have done. */
function inEachBox(puzzle: Puzzle, stages: readonly Stage[]): readonly Stage[] {
  if (stages.every((stage) => stage.for === undefined)) return stages
  const length = endsOf(puzzle.definition)?.length ?? 0
  const boxes = Math.floor(length / 2)
  const own = stages.filter((stage) => stage.for === 'each box')
  const done: Condition[] = []
  const found: Stage[] = []
  const add = (stage: Stage) => found.push({ ...stage, goal: [...stage.goal, ...done] })
  for (const stage of stages) {
    if (stage.for !== 'each box') {
      if (stage.for === 'the belt' && length % 2 === 0) continue
      add(stage)
      done.push(...stage.goal)
    } else if (stage === own[0])
      for (let box = boxes; box > 0; box--) {
        own.forEach((each) => add(ofBox(each, box, boxes)))
        done.push(...ofBox(own[own.length - 1], box, boxes).goal)
      }
  }
  return found
}

/** 'outer', 'inner', and what lies between them. */
const BOX_NAMES: readonly (readonly string[])[] = [
  [],
  [''],
  ['outer ', 'inner '],
  ['outer ', 'middle ', 'inner '],
]

/** A stage that is written for the outermost box, for another one. */
function ofBox(stage: Stage, box: number, boxes: number): Stage {
  const named = (text: string) => {
    const name = (boxes === 1 ? text.replace('{box} box: ', '') : text).replaceAll(
      '{box} ',
      BOX_NAMES[boxes][box - 1],
    )
    return name[0].toUpperCase() + name.slice(1)
  }
  const inBox = (selection: Selection): Selection => ({ ...selection, box })
  const technique = { ...stage.technique }
  if (technique.kind === 'swap') technique.select = inBox(technique.select)
  return {
    ...stage,
    id: boxes === 1 ? stage.id : `${stage.id}-${box}`,
    name: named(stage.name),
    aim: named(stage.aim),
    goal: stage.goal.map((condition) => ({
      ...condition,
      ...(condition.select ? { select: inBox(condition.select) } : {}),
    })),
    technique,
  }
}

/** The outer layers of the first of two halves that turn, as schools are written: those away from the second. */
const WRITTEN: readonly FaceLetter[] = ['U', 'R']

/** How a puzzle is turned from the hold in which its schools are written. */
function holdAsWritten({ definition }: Puzzle, { fits }: School): Rotation {
  const { mechanism } = definition
  const each = Array.from({ length: ROTATION_COUNT }, (_, rotation) => rotation)
  const ends = 'ends' in fits ? endsOf(definition) : undefined
  if (ends) {
    const up = directionOfLetter('U')
    return each.find((r) => turnDirection(r, up).vector[ends.axis] > 0) ?? IDENTITY
  }
  if (mechanism.kind !== 'conjoined') return IDENTITY
  const [first, second] = mechanism.boxes
  const away = subtract(first.centre, second.centre)
  const hold = each.find((r) => {
    const free = WRITTEN.map((letter) => turnDirection(r, directionOfLetter(letter)).vector)
    return free.every((vector) => dot(vector, away) > 0)
  })
  return hold ?? IDENTITY
}

const letterIn = (hold: Rotation, letter: FaceLetter): FaceLetter =>
  turnDirection(hold, directionOfLetter(letter)).letter

const textIn = (hold: Rotation, text: string): string =>
  text.replace(/[UDFBRL]/g, (letter) => letterIn(hold, letter as FaceLetter))

/** A stage with its letters as they are in another hold. */
function inHold(stage: Stage, hold: Rotation): Stage {
  const technique = { ...stage.technique }
  if ('sequences' in technique && technique.sequences)
    technique.sequences = technique.sequences.map((text) => textIn(hold, text))
  if ('fetch' in technique) technique.fetch = textIn(hold, technique.fetch)
  if ('turn' in technique && technique.turn) technique.turn = textIn(hold, technique.turn)
  if ('layers' in technique) technique.layers = technique.layers.map((text) => textIn(hold, text))
  if (technique.kind === 'as') technique.size = sizeIn(hold, technique.size)
  if ('select' in technique && technique.select)
    technique.select = selectionIn(hold, technique.select)
  const goal = stage.goal.map((condition) =>
    condition.select ? { ...condition, select: selectionIn(hold, condition.select) } : condition,
  )
  return { ...stage, base: letterIn(hold, stage.base), goal, technique } as Stage
}

const selectionIn = (hold: Rotation, selection: Selection): Selection =>
  selection.as ? { ...selection, as: sizeIn(hold, selection.as) } : selection

/** Layers along the axes as they lie in another hold. */
function sizeIn(hold: Rotation, size: Vector): Vector {
  const turned = [0, 0, 0]
  AXES.forEach((axis, a) => {
    turned[rotate(hold, axis).findIndex((c) => c !== 0)] = size[a]
  })
  return turned as unknown as Vector
}

const AXES: readonly Vector[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
]
