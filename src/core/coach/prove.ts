/**
 * The proof of a school on a puzzle: from a seeded sample of states, the holds in turn, each stage is
 * entered, led to its goal and left with what it promises. What it cannot leave is named.
 */
import { joinedAs } from '../analysis/joined'
import { writeTurns } from '../notation/write'
import type { Puzzle } from '../puzzle/compile'
import { readTurns } from '../notation/read'
import { fail, ok, type Problem, type Result } from '../result'
import { fits } from '../schools/fits'
import { stagesOf, variantsOf, type School, type Stage } from '../schools/school'
import { taught } from '../schools/taught'
import { scramble, scrambledState } from '../scramble/scramble'
import { rotateState, writeState } from '../state'
import { openStates } from './deriveKnown'
import { sequencesOf } from './technique'
import { cheapestRow } from './techniques/known'
import { plan } from './plan'
import { selected } from './selections'
import { basesOf } from './start'
import { held, holdsBringing } from './workpiece'
import { statesAfterStages } from './verify'

export interface Proof {
  readonly states: number
  /** Positions of stages whose positions could all be listed, each led to its goal. */
  readonly listed: number
  readonly meanLooks: number
  readonly meanTurns: number
  readonly mostTurns: number
}

/** @param progress told the share that is done, if it is wanted */
export function prove(
  puzzle: Puzzle,
  school: School,
  states: number,
  progress: (share: number) => void = () => undefined,
): Result<Proof> {
  const misfit = misfitOf(puzzle, school)
  if (misfit) return { ok: false, problem: misfit }
  const listed = listedAll(puzzle, taught(puzzle, school))
  if (!listed.ok) return listed
  let [turns, most, looks] = [0, 0, 0]
  for (let seed = 1; seed <= states; seed++) {
    const drawn = scramble(puzzle, seed)
    const hold = puzzle.holds[seed % puzzle.holds.length]
    const from = rotateState(scrambledState(puzzle, drawn), hold)
    const stuck = (why: string) => fail('stuck', `From ${writeTurns(drawn.turns)} ${why}`)
    let route: ReturnType<typeof plan>
    try {
      route = plan(puzzle, school, from)
    } catch (error) {
      return stuck(`the school does not get on: ${(error as Error).message}.`)
    }
    if (!route.ok) return stuck(`the school does not lead home: ${route.problem.sentence}`)
    const missed = statesAfterStages(puzzle, school, route.value).find(({ met }) => !met)
    if (missed) return stuck(`the stage ${missed.stage} does not reach its goal.`)
    progress(seed / states)
    turns += route.value.turnCount
    looks += route.value.looks
    most = Math.max(most, route.value.turnCount)
  }
  return ok({
    states,
    listed: listed.value,
    meanTurns: Math.round((10 * turns) / states) / 10,
    meanLooks: Math.round((10 * looks) / states) / 10,
    mostTurns: most,
  })
}

/**
 * The stages whose positions are few: all that the goal before leaves open are listed, and the sequences of the
 * stage must lead each of them to its goal. How many there were.
 */
function listedAll(puzzle: Puzzle, school: School): Result<number> {
  let count = 0
  const seen = new Set<Stage>()
  for (const variant of variantsOf(school)) {
    const stages = stagesOf(school, variant)
    for (const [s, stage] of stages.entries()) {
      // Ways of practice have most stages in common.
      if (seen.has(stage)) continue
      seen.add(stage)
      const { technique } = stage
      const before = stages[s - 1]?.goal ?? []
      // With nothing home before it, everything is open.
      if (technique.kind !== 'known' || before.length === 0) continue
      // Not every side may be the first one.
      const base = basesOf(puzzle, school, stage)[0]
      const [hold] = holdsBringing(puzzle, base, held(stage).base)
      const states = openStates(puzzle, stage, before, base)?.map((state) =>
        rotateState(state, hold.hold),
      )
      if (!states) continue
      const sequences = sequencesOf(puzzle, school, stage, before)
      const context = { puzzle, stage, base, hand: 'right' as const }
      const left = states.find(
        (state) => cheapestRow(context, state, technique, sequences) === undefined,
      )
      if (left)
        return fail(
          'stuck',
          `The stage ${stage.id} does not leave the position ${writeState(left)}, which the stage before can.`,
        )
      count += states.length
    }
  }
  return ok(count)
}

/** Why a school cannot be meant for a puzzle, before anything is planned. */
export function misfitOf(puzzle: Puzzle, school: School): Problem | undefined {
  if (!fits(school, puzzle.definition))
    return {
      code: 'does-not-fit',
      sentence: `${school.name} is not written for ${puzzle.definition.name}.`,
    }
  const sentence = isNoBox(puzzle, school) ?? illWritten(puzzle, taught(puzzle, school))
  return sentence === undefined ? undefined : { code: 'bad-school', sentence }
}

/** A smaller box that the puzzle is not. */
function isNoBox(puzzle: Puzzle, { stages }: School): string | undefined {
  const wrong = stages.find(
    ({ technique }) => technique.kind === 'as' && !joinedAs(puzzle, technique.size),
  )
  return wrong && `The stage ${wrong.id} is done as a box that this puzzle cannot be.`
}

/** A selection that finds nothing, or a sequence that the puzzle does not have. */
function illWritten(puzzle: Puzzle, school: School): string | undefined {
  for (const stage of school.stages) {
    const { technique, goal } = stage
    const selections = [
      ...goal.flatMap(({ select }) => (select ? [select] : [])),
      ...('select' in technique && technique.select ? [technique.select] : []),
    ]
    for (const base of basesOf(puzzle, school, stage))
      if (selections.some((select) => selected(puzzle, select, base).length === 0))
        return `The stage ${stage.id} means pieces that this puzzle does not have.`
    const sequences = 'sequences' in technique ? (technique.sequences ?? []) : []
    for (const text of sequences) {
      const read = readTurns(puzzle, text)
      if (!read.ok) return `The stage ${stage.id} has ${text}: ${read.problem.sentence}`
    }
  }
  return undefined
}
