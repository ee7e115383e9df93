/** The table of techniques: how each works on a workpiece, what it asks to be known, what it builds first. */
import { memoised } from '../memo'
import { mirror } from '../notation/rewrite'
import { sequence } from '../notation/sequence'
import { prepareShortest } from '../universal/shortestHome'
import type { Hand } from '../notation/handCost'
import { derivedStage } from '../schools/derived'
import { taught } from '../schools/taught'
import { kitOf } from '../universal/solve'
import { deriveCases, deriveCycle, stageKey, type Case } from './cases'
import { playAs, smallLesson } from './techniques/as'
import { doBlocks } from './techniques/blocks'
import { doCommutators, kitOfCommutators } from './techniques/commutator'
import { doCase } from './techniques/case'
import { countAndCycle } from './techniques/count'
import { deriveKnown } from './deriveKnown'
import { gather } from './techniques/gather'
import { doOptimal } from './techniques/optimal'
import { insertPieces } from './techniques/insert'
import { joinParts } from './techniques/join'
import { setUpMacros } from './techniques/joinMacros'
import { doKnown } from './techniques/known'
import { doRemedy } from './techniques/remedy'
import { doReshape } from './techniques/reshape'
import { doSeries, kitOfStage } from './techniques/series'
import { doSmall } from './techniques/small'
import { doSwaps, sequencesUsed, tableOf } from './techniques/swap'
import { spinInPlace } from './techniques/spin'
import { triggerIn } from './techniques/trigger'
import { twistInPlace } from './techniques/twist'
import { doRest, doUniversally } from './techniques/universally'
import { held, type StageContext, type Workpiece } from './workpiece'
import type { Condition, School, Stage, Technique } from '../schools/school'
import type { Puzzle } from '../puzzle/compile'

type Kind = Technique['kind']
type Of<K extends Kind> = Extract<Technique, { kind: K }>

/** A stage of one puzzle, with the goal of the one before. */
interface Lesson {
  readonly puzzle: Puzzle
  readonly school: School
  readonly stage: Stage
  readonly goalBefore: readonly Condition[]
}

interface Way<K extends Kind> {
  readonly run: (
    context: StageContext,
    work: Workpiece,
    technique: Of<K>,
    goalBefore: readonly Condition[],
  ) => void
  /** The sequences that it asks to be known, for the right hand. */
  readonly known?: (lesson: Lesson, technique: Of<K>) => readonly string[]
  /** The same as they are learned, where a stage does in other layers what is known already. */
  readonly learned?: (lesson: Lesson, technique: Of<K>) => readonly string[]
  /** Tables that are built before the first plan, once. */
  readonly prepare?: (lesson: Lesson, technique: Of<K>, progress: (share: number) => void) => void
  /** It plans its own way whatever the stage's goal, and takes the hold that there is. */
  readonly isWhole?: boolean
  /** It goes by what is seen: which of equal pieces is which is settled when all of the way is known. */
  readonly readsByLook?: boolean
  /** Each step is a search, so that only the most promising way to begin is followed. */
  readonly isDear?: boolean
}

const UNIVERSAL = {
  run: doUniversally,
  prepare: ({ puzzle }: Lesson, _: unknown, progress: (share: number) => void) =>
    void kitOf(puzzle, progress),
  isWhole: true,
}

/** Ways of working that choose from a kit of commutators. */
const BY_KIT = {
  prepare: (lesson: Lesson, technique: Of<'commutator' | 'blocks'>) =>
    void kitOfCommutators(
      { ...lesson, base: held(lesson.stage).base },
      technique,
      lesson.goalBefore,
    ),
  readsByLook: true,
  isDear: true,
}

const TECHNIQUES: { readonly [K in Kind]: Way<K> } = {
  gather: {
    run: (context, work, { must, select }) => gather(context, work, must, select),
  },
  spin: { run: spinInPlace },
  insert: { run: insertPieces, known: (_, { sequences }) => sequences },
  series: {
    run: doSeries,
    known: (_, { sequences = [] }) => sequences,
    prepare: (lesson, technique) => void kitOfStage(lesson, held(lesson.stage).base, technique),
  },
  join: {
    run: joinParts,
    // A single turn is nothing to learn.
    known: (_, { sequences }) => sequences.filter((text) => text.includes(' ')),
    prepare: ({ puzzle }, { sequences }) => void setUpMacros(puzzle, sequences.join('|')),
    readsByLook: true,
    isDear: true,
  },
  commutator: { run: doCommutators, ...BY_KIT },
  blocks: { run: doBlocks, ...BY_KIT },
  as: {
    run: (context, work, technique, goalBefore) =>
      playAs(context, work, technique, goalBefore, { run: runTechnique, readsByLook }),
    known: (lesson, technique) => knownAs(lesson, technique, 'known'),
    learned: (lesson, technique) => knownAs(lesson, technique, 'learned'),
    prepare: ({ puzzle, goalBefore }, technique, progress) => {
      const small = smallLesson(puzzle, technique, goalBefore)
      wayOf(small.stage.technique).prepare?.(small, small.stage.technique, progress)
    },
    readsByLook: true,
  },
  remedy: { run: doRemedy, known: (_, { sequences }) => sequences },
  reshape: { run: doReshape },
  small: { run: doSmall },
  swap: {
    run: doSwaps,
    known: (lesson, technique) =>
      sequencesUsed(lesson, technique, lesson.goalBefore).map(({ text }) => text),
    learned: (lesson, technique) =>
      sequencesUsed(lesson, technique, lesson.goalBefore).map(({ as }) => as),
    prepare: (lesson, technique) => void tableOf(lesson, technique, lesson.goalBefore),
    readsByLook: true,
  },
  known: {
    run: (context, work, technique, goalBefore) =>
      doKnown(context, work, technique, knownIn({ ...context, goalBefore })),
    known: knownIn,
  },
  trigger: {
    run: (context, work, { triggers }) => triggerIn(context, work, triggers),
    known: (_, { triggers }) => triggers.map(({ turns }) => turns),
  },
  count: {
    run: (context, work, { held }) =>
      countAndCycle(
        context,
        work,
        placeForHand(held, context.hand),
        turnsForHand(context.puzzle, cycleOf(context), context.hand),
      ),
    known: (lesson) => [cycleOf(lesson)],
  },
  twist: {
    run: (context, work, { trigger, spot }) =>
      twistInPlace(
        context,
        work,
        turnsForHand(context.puzzle, trigger, context.hand),
        placeForHand(spot, context.hand),
      ),
    known: (_, { trigger }) => [trigger],
  },
  case: {
    run: (context, work, _, goalBefore) =>
      doCase(context, work, casesOf({ ...context, goalBefore }, context.hand)),
    known: (lesson) => casesForRightHand(lesson).map(({ turns }) => turns),
  },
  rest: { ...UNIVERSAL, run: (context, work) => doRest(context, work) },
  shape: UNIVERSAL,
  sums: UNIVERSAL,
  cycles: UNIVERSAL,
  optimal: {
    run: doOptimal,
    prepare: ({ puzzle }, _, progress) => prepareShortest(puzzle, progress),
    isWhole: true,
  },
}

const wayOf = <K extends Kind>({ kind }: Of<K>): Way<K> => TECHNIQUES[kind as K]

/** Runs the technique of a stage on a workpiece. */
export function runTechnique(
  context: StageContext,
  goalBefore: readonly Condition[],
  work: Workpiece,
): void {
  const { technique } = context.stage
  wayOf(technique).run(context, work, technique, goalBefore)
}

export const plansAsWhole = ({ technique }: Stage): boolean => wayOf(technique).isWhole ?? false

export const readsByLook = ({ technique }: Stage): boolean => wayOf(technique).readsByLook ?? false

export const isDear = ({ technique }: Stage): boolean => wayOf(technique).isDear ?? false

/**
 * The sequences that a stage asks to be known, for the right hand: as they are done there, or as they are
 * learned, where what is done in several layers is one.
 */
export function sequencesOf(
  puzzle: Puzzle,
  school: School,
  stage: Stage,
  goalBefore: readonly Condition[],
  as: 'known' | 'learned' = 'known',
): readonly string[] {
  const { technique } = stage
  const { known, learned } = wayOf(technique)
  const told = as === 'learned' ? (learned ?? known) : known
  return told?.({ puzzle, school, stage, goalBefore }, technique) ?? []
}

/** What a stage of the smaller box asks to be known, in the turns of the real puzzle. */
function knownAs(
  { puzzle, goalBefore }: Lesson,
  technique: Of<'as'>,
  as: 'known' | 'learned',
): string[] {
  const small = smallLesson(puzzle, technique, goalBefore)
  return sequencesOf(small.puzzle, small.school, small.stage, small.goalBefore, as).map((text) =>
    sequence(small.puzzle, text)
      .turns.map((turn) => small.joined.turnFor(turn).name)
      .join(' '),
  )
}

/** Builds what the techniques of a school need, unless it is there. */
export function prepareFor(
  puzzle: Puzzle,
  school: School,
  progress: (share: number) => void = () => undefined,
): void {
  const { stages } = taught(puzzle, school)
  const works = stages.flatMap((stage, s) => {
    const { technique } = stage
    const { prepare } = wayOf(technique)
    const lesson = { puzzle, school, stage, goalBefore: stages[s - 1]?.goal ?? [] }
    return prepare ? [(told: typeof progress) => prepare(lesson, technique, told)] : []
  })
  for (const [done, work] of works.entries()) {
    work((share) => progress((done + share) / works.length))
    progress((done + 1) / works.length)
  }
}

/** The sequences of a stage: as the school has them, else as they were derived. */
function knownIn({ puzzle, school, stage, goalBefore }: Lesson): readonly string[] {
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
export function casesOf(lesson: Lesson, hand: Hand): readonly Case[] {
  return casesForRightHand(lesson).map((each) => ({
    ...each,
    turns: turnsForHand(lesson.puzzle, each.turns, hand),
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

function casesForRightHand({ puzzle, school, stage, goalBefore }: Lesson): readonly Case[] {
  const shipped = derivedStage(puzzle.definition, stageKey(school, stage))?.cases
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cases ?? deriveCases(puzzle, stage, goalBefore)
  derivedHere.set(stage, { cases: known })
  return known
}

function cycleOf({ puzzle, school, stage }: Omit<Lesson, 'goalBefore'>): string {
  if (stage.technique.kind === 'count' && stage.technique.cycle) return stage.technique.cycle
  const shipped = derivedStage(puzzle.definition, stageKey(school, stage))?.cycle
  if (shipped) return shipped
  const known = derivedHere.get(stage)?.cycle ?? deriveCycle(puzzle, stage)
  derivedHere.set(stage, { cycle: known })
  return known
}
