/** A school as it is taught on one puzzle: what the puzzle never asks for is left out. */
import { lookAlikesOf } from '../analysis/lookAlikes'
import { anchorsOf } from '../analysis/anchors'
import { dot, subtract } from '../geometry/vector'
import { directionOfLetter, turnDirection, type FaceLetter } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { IDENTITY, ROTATION_COUNT, type Rotation } from '../rotation'
import { baseKind } from '../words'
import type { Fact, School, Stage } from './school'

const known = new WeakMap<Puzzle, WeakMap<School, School>>()

export function taught(puzzle: Puzzle, school: School): School {
  const schools = known.get(puzzle) ?? new WeakMap<School, School>()
  known.set(puzzle, schools)
  const found = schools.get(school)
  if (found) return found
  const asked = school.stages.filter(({ asks }) => asks === undefined || holds(puzzle, asks))
  const hold = holdAsWritten(puzzle)
  const stages = hold === IDENTITY ? asked : asked.map((stage) => inHold(stage, hold))
  const isAsWritten = hold === IDENTITY && stages.length === school.stages.length
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

/** The outer layers of the first of two halves that turn, as schools are written: those away from the second. */
const WRITTEN: readonly FaceLetter[] = ['U', 'R']

/** How a puzzle is turned from the hold in which its schools are written. */
function holdAsWritten({ definition: { mechanism } }: Puzzle): Rotation {
  if (mechanism.kind !== 'conjoined') return IDENTITY
  const [first, second] = mechanism.boxes
  const away = subtract(first.centre, second.centre)
  const hold = Array.from({ length: ROTATION_COUNT }, (_, each) => each).find((each) => {
    const free = WRITTEN.map((letter) => turnDirection(each, directionOfLetter(letter)).vector)
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
