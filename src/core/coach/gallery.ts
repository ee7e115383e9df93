/** All cases of a stage, with pictures, readings and what each is most easily taken for. */
import { turnDirection, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'
import { stagesOf, type School, type Stage, type Variant } from '../schools/school'
import type { Hand } from '../notation/handCost'
import { doSequence, sequence, sequenceOf } from '../notation/sequence'
import { inverseOf, rotateState, start, writeState, type State } from '../state'
import { sideOf } from './goal'
import { bars, directions, type Reading } from './reading'
import { casesOf } from './technique'
import { held } from './workpiece'

export interface GalleryCase {
  readonly index: number
  /** A state of the case in the hold in which its algorithm begins, as `writeState` writes it. */
  readonly state: string
  readonly algorithm: readonly string[]
  readonly summary: string
  readonly detail: string
  /** States of the stage that belong to it, of how many. */
  readonly share: readonly [number, number]
  readonly confusion?: {
    readonly index: number
    /** The place whose sticker decides, where it looks here and there. */
    readonly place: string
    readonly here: string
    readonly there: string
  }
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
  const cases = casesOf({ puzzle, school, stage, goalBefore: stages[at - 1]?.goal ?? [] }, hand)
  const total = cases.reduce((sum, { states }) => sum + states, 0)
  const shown = cases.map(({ turns }) => caseState(puzzle, stage, base, turns))
  const readings = shown.map((state) => readingOf(puzzle, stage, base, state))
  return cases.map(({ turns, states }, index) => ({
    index,
    state: writeState(shown[index]),
    algorithm: turns.split(' '),
    summary: readings[index].summary,
    detail: readings[index].detail,
    share: [states, total],
    confusion: confusionOf(puzzle, stage, base, shown, readings, index),
  }))
}

/** The finished puzzle, base layer held as the stage holds it, with the algorithm taken back. */
function caseState(puzzle: Puzzle, stage: Stage, base: Direction, turns: string): State {
  const hold = puzzle.holds.find((each) => turnDirection(each, base) === held(stage).base)
  const finished = rotateState(start(puzzle), hold ?? 0)
  return doSequence(sequenceOf(puzzle, inverseOf(puzzle, sequence(puzzle, turns).turns)), finished)
}

function readingOf(puzzle: Puzzle, stage: Stage, base: Direction, state: State): Reading {
  const { technique } = stage
  return technique.kind === 'case' && technique.reading === 'directions'
    ? directions(puzzle, state, sideOf('last', base), held(stage).last)
    : bars(puzzle, state, held(stage).last)
}

/**
 * The case that differs in the fewest stickers from some hold, and one that tells them apart. Only
 * for readings by directions, where every place has one sticker that counts.
 */
function confusionOf(
  puzzle: Puzzle,
  stage: Stage,
  base: Direction,
  shown: readonly State[],
  readings: readonly Reading[],
  index: number,
): GalleryCase['confusion'] {
  if (stage.technique.kind !== 'case' || stage.technique.reading !== 'directions') return undefined
  const own = readings[index].entries
  const { last } = held(stage)
  const isRight = ({ looks }: { looks: string }) => looks === last.toward
  const spinning = puzzle.holds.filter((hold) => turnDirection(hold, last) === last)
  const rivals = shown.flatMap((state, other) =>
    other === index
      ? []
      : spinning.map((hold) => {
          const entries = directions(
            puzzle,
            rotateState(state, hold),
            sideOf('last', base),
            last,
          ).entries
          const differing = own.filter(({ looks }, i) => looks !== entries[i].looks)
          return { other, entries, differing }
        }),
  )
  // People confuse cases with as many pieces right, so those come first.
  const right = own.filter(isRight).length
  const alike = rivals.filter(({ entries }) => entries.filter(isRight).length === right)
  const nearest = (alike.length > 0 ? alike : rivals).reduce((a, b) =>
    b.differing.length < a.differing.length ? b : a,
  )
  const [decisive] = nearest.differing
  if (!decisive) return undefined
  const position = own.indexOf(decisive)
  return {
    index: nearest.other,
    place: decisive.place,
    here: decisive.looks,
    there: nearest.entries[position].looks,
  }
}
