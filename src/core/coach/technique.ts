/** Runs the technique of a stage on a workpiece. */
import { memoised } from '../memo'
import { mirror } from '../notation/rewrite'
import { sequence } from '../search/sequence'
import type { Hand } from '../search/handCost'
import { derivedStage } from '../schools/derived'
import { deriveCases, deriveCycle, stageKey, type Case } from './cases'
import { doCase } from './techniques/case'
import { countAndCycle } from './techniques/count'
import { deriveKnown } from './deriveKnown'
import { gather } from './techniques/gather'
import { doRest } from './techniques/rest'
import { insertPieces } from './techniques/insert'
import { doKnown } from './techniques/known'
import { doSeries } from './techniques/series'
import { spinInPlace } from './techniques/spin'
import { triggerIn } from './techniques/trigger'
import { twistInPlace } from './techniques/twist'
import type { StageContext, Workpiece } from './workpiece'
import type { Condition, School, Stage } from '../schools/school'
import type { Puzzle } from '../puzzle/compile'

export function runTechnique(
  context: StageContext,
  goalBefore: readonly Condition[],
  work: Workpiece,
): void {
  const { puzzle, school, stage } = context
  const { technique } = stage
  switch (technique.kind) {
    case 'gather':
      return gather(context, work, technique.must, technique.select)
    case 'rest':
      return doRest(context, work)
    case 'spin':
      return spinInPlace(context, work, technique)
    case 'insert':
      return insertPieces(context, work, technique, goalBefore)
    case 'known':
      return doKnown(context, work, technique, knownIn(puzzle, school, stage, goalBefore))
    case 'series':
      return doSeries(context, work, technique, goalBefore)
    case 'trigger':
      return triggerIn(context, work, technique.triggers)
    case 'count':
      return countAndCycle(
        context,
        work,
        placeForHand(technique.held, context.hand),
        turnsForHand(puzzle, cycleOf(puzzle, school, stage), context.hand),
      )
    case 'twist':
      return twistInPlace(
        context,
        work,
        turnsForHand(puzzle, technique.trigger, context.hand),
        placeForHand(technique.spot, context.hand),
      )
    case 'case':
      return doCase(context, work, casesOf(puzzle, school, stage, goalBefore, context.hand))
    default:
      throw new Error(`${technique.kind} is planned as a whole, not stage by stage`)
  }
}

/** The sequences that a stage asks to be known, for the right hand. */
export function sequencesOf(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
): readonly string[] {
  const { technique } = stage
  switch (technique.kind) {
    case 'trigger':
      return technique.triggers.map(({ turns }) => turns)
    case 'twist':
      return [technique.trigger]
    case 'count':
      return [cycleOf(puzzle, school, stage)]
    case 'case':
      return casesForRightHand(puzzle, school, stage, goalBefore).map(({ turns }) => turns)
    case 'insert':
    case 'series':
      return technique.sequences
    case 'known':
      return knownIn(puzzle, school, stage, goalBefore)
    default:
      return []
  }
}

/** The sequences of a stage: as the school has them, else as they were derived. */
function knownIn(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
): readonly string[] {
  const { technique } = stage
  if (technique.kind === 'known' && technique.sequences) return technique.sequences
  const shipped = derivedStage(puzzle.definition, stageKey(school, stage))?.cases
  const known = shipped ?? derivedHere.get(stage)?.cases ?? deriveKnown(puzzle, stage, goalBefore)
  derivedHere.set(stage, { cases: [...known] })
  return known.map(({ turns }) => turns)
}

const derivedHere = new WeakMap<Stage, { cases?: Case[]; cycle?: string }>()

/**
 * The cases of a stage: shipped with the program, or derived now and kept. For the left hand all are
 * mirrored: what is left of a case's mirror image is a case again.
 */
export function casesOf(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
  hand: Hand,
): readonly Case[] {
  return casesForRightHand(puzzle, school, stage, goalBefore).map((each) => ({
    ...each,
    turns: turnsForHand(puzzle, each.turns, hand),
  }))
}

/** A sequence as the hand does it: for the left one its mirror image. */
const turnsForHand = (puzzle: Puzzle, text: string, hand: Hand): string =>
  hand === 'right' ? text : mirrored(puzzle, text)

const mirrored = memoised((puzzle: Puzzle, text: string): string =>
  mirror(puzzle, sequence(puzzle, text).turns)
    .map(({ name }) => name)
    .join(' '),
)

const MIRRORED_LETTERS: Readonly<Record<string, string>> = { R: 'L', L: 'R' }

const placeForHand = (name: string, hand: Hand): string =>
  hand === 'right' ? name : name.replace(/[RL]/g, (letter) => MIRRORED_LETTERS[letter])

function casesForRightHand(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
): readonly Case[] {
  const shipped = derivedStage(puzzle.definition, stageKey(school, stage))?.cases
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cases ?? deriveCases(puzzle, stage, goalBefore)
  derivedHere.set(stage, { cases: known })
  return known
}

function cycleOf(puzzle: Puzzle, school: School, stage: Stage): string {
  if (stage.technique.kind === 'count' && stage.technique.cycle) return stage.technique.cycle
  const shipped = derivedStage(puzzle.definition, stageKey(school, stage))?.cycle
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cycle ?? deriveCycle(puzzle, stage)
  derivedHere.set(stage, { cycle: known })
  return known
}
