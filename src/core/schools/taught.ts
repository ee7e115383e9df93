/** A school as it is taught on one puzzle: what the puzzle never asks for is left out. */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { anchorsOf } from '../analysis/anchors'
import { dot, subtract } from '../geometry/vector'
import { directionOfLetter, turnDirection, type FaceLetter } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, ROTATION_COUNT, type Rotation } from '../rotation'
import { baseKind } from '../words'
import { longAxisOf } from './fits'
import type { Condition, Fact, School, Selection, Stage } from './school'

const known = new WeakMap<Puzzle, WeakMap<School, School>>()

export function taught(puzzle: Puzzle, school: School): School {
  const schools = known.get(puzzle) ?? new WeakMap<School, School>()
  known.set(puzzle, schools)
  const found = schools.get(school)
  if (found) return found
  const asked = inEachBox(puzzle, school.stages).filter(
    ({ asks }) => asks === undefined || holds(puzzle, asks),
  )
  const hold = holdAsWritten(puzzle, school)
  const stages = hold === IDENTITY ? asked : asked.map((stage) => inHold(stage, hold))
  const isAsWritten =
    stages.length === school.stages.length && stages.every((stage, i) => stage === school.stages[i])
  const own = isAsWritten ? school : { ...school, stages }
  schools.set(school, own)
  schools.set(own, own)
  return own
}

/** Whether a turn of some centre in its place can be seen. */
const doCentresTell = (puzzle: Puzzle): boolean =>
  anchorsOf(puzzle).some(
    (p) =>
      baseKind(puzzle.pieces[p].kind) === 'centre' && lookAlikesOf(puzzle).inPlace[p].looks > 1,
  )

function holds(puzzle: Puzzle, fact: Fact): boolean {
  switch (fact) {
    case 'centres tell':
      return doCentresTell(puzzle)
    case 'no centre tells':
      return !doCentresTell(puzzle)
  }
}

/** Layers between the ends, where there are two square ones. */
function lengthOf({ definition: { mechanism } }: Puzzle): number {
  const long = mechanism.kind === 'box' ? longAxisOf(mechanism.size) : undefined
  return mechanism.kind === 'box' && long !== undefined ? mechanism.size[long] : 0
}

/** Stages for every box written out for each, the innermost first. */
function inEachBox(puzzle: Puzzle, stages: readonly Stage[]): readonly Stage[] {
  const first = stages.findIndex((stage) => stage.for === 'each box')
  if (first < 0 && stages.every((stage) => stage.for === undefined)) return stages
  const length = lengthOf(puzzle)
  const boxes = Math.floor(length / 2)
  const own = stages.filter((stage) => stage.for === 'each box')
  const done: Condition[] = []
  const keeping = (stage: Stage): Stage => {
    const goal = [...stage.goal, ...done]
    return { ...stage, goal }
  }
  const found: Stage[] = []
  for (const stage of stages) {
    if (stage.for === 'the belt') {
      if (length % 2 === 0) continue
      found.push(stage)
      done.push(...stage.goal)
    } else if (stage.for === undefined) found.push(stage)
    else if (stage === own[0])
      for (let box = boxes; box > 0; box--) {
        found.push(...own.map((each) => keeping(ofBox(each, box, boxes))))
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
  if (technique.kind === 'swap') {
    technique.select = inBox(technique.select)
    technique.sequences = technique.sequences
      .map((text) =>
        text.replace(
          /(\d*)([UD])/g,
          (_, layer: string, letter: string) => `${Number(layer || 1) + box - 1}${letter}`,
        ),
      )
      // What is done in the boxes inside is of use only where there are any.
      .filter((text) =>
        [...text.matchAll(/(\d+)[UD]/g)].every(([, layer]) => Number(layer) <= boxes),
      )
      .map((text) => text.replace(/\b1(?=[UD])/g, ''))
  }
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

const UP_AXIS = 1

/** How a puzzle is turned from the hold in which its schools are written. */
function holdAsWritten({ definition: { mechanism } }: Puzzle, { fits }: School): Rotation {
  const each = Array.from({ length: ROTATION_COUNT }, (_, rotation) => rotation)
  if (mechanism.kind === 'box' && 'ends' in fits) {
    const long = longAxisOf(mechanism.size) ?? UP_AXIS
    const up = directionOfLetter('U')
    return each.find((r) => turnDirection(r, up).vector[long] > 0) ?? IDENTITY
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
  return { ...stage, base: letterIn(hold, stage.base), technique } as Stage
}
