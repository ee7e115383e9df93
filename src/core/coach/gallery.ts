/** All cases of a stage, with pictures, how each is read and what it is most easily taken for. */
import type { Said } from '../claims/claim'
import { turnDirection, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import type { Rotation } from '../rotation'
import { stagesOf, type School, type Variant } from '../schools/school'
import type { Hand } from '../notation/handCost'
import { writeState } from '../state'
import { mistakenFor, readingOf, stateOfCase } from './caseClaims'
import { sideOf } from './goal'
import { casesOf } from './technique'
import { held } from './workpiece'

export interface GalleryCase {
  readonly index: number
  /** A state of the case in the hold in which its algorithm begins, as `writeState` writes it, and that hold. */
  readonly state: string
  readonly frame: Rotation
  readonly algorithm: readonly string[]
  /** The case as it is named, what lies where in its hold, and what it is taken for. */
  readonly looks: Said
  readonly hold: Said
  readonly mistaken: Said
  /** States of the stage that belong to it, of how many. */
  readonly share: readonly [number, number]
}

export function galleryOf(
  puzzle: Puzzle,
  school: School,
  variant: Variant,
  stageId: string,
  base: Direction,
  hand: Hand = 'right',
): GalleryCase[] {
  const stages = stagesOf(school, variant)
  const at = stages.findIndex(({ id }) => id === stageId)
  const stage = stages[at]
  if (stage?.technique.kind !== 'case') return []
  const { reading } = stage.technique
  const cases = casesOf({ puzzle, school, stage, goalBefore: stages[at - 1]?.goal ?? [] }, hand)
  const algorithms = cases.map(({ turns }) => turns)
  const total = cases.reduce((sum, { states }) => sum + states, 0)
  const frame = puzzle.holds.find((each) => turnDirection(each, base) === held(stage).base) ?? 0
  const side = sideOf('last', base)
  return cases.map(({ turns, states }, index): GalleryCase => {
    const state = stateOfCase(puzzle, frame, turns)
    const moment = { state, frame }
    return {
      index,
      state: writeState(state),
      frame,
      algorithm: turns.split(' '),
      ...readingOf(puzzle, moment, side, reading),
      mistaken:
        reading === 'directions'
          ? mistakenFor(puzzle, moment, side, { caseIndex: index, algorithms })
          : [],
      share: [states, total],
    }
  })
}
