/** The universal school as a route: its steps in order, each with its words. */
import { withMeetings } from './meetings'
import { holdOf } from '../analysis/placements'
import type { Scheme } from '../puzzle/colours'
import type { Puzzle, Turn } from '../puzzle/compile'
import { ok, type Result } from '../result'
import { multiply } from '../rotation'
import { pieceByPiece } from '../schools/piece-by-piece'
import type { School } from '../schools/school'
import { turnFreely, writeState, type State } from '../state'
import { knownPlanOf } from '../universal/orbitPlan'
import type { Wish } from '../universal/cyclesHome'
import { joined } from '../universal/joints'
import { solveUniversally, type UniversalStep } from '../universal/solve'
import type { Route, RouteStage, RouteStep } from './route'
import { explain } from './universalClaims'

/**
 * A route in the universal school; it still has to be replayed. Set-up turns that the next step of the
 * same stage would make again are left standing between the two.
 *
 * @param wish pieces that the first series shall take, if it can
 */
export function planUniversally(
  puzzle: Puzzle,
  given: School,
  from: State,
  scheme: Scheme,
  wish?: Wish,
): Result<Route> {
  const solved = solveUniversally(puzzle, from, wish)
  if (!solved.ok) return solved
  // Solving may have found another order of the work than the one that was guessed before.
  const school = pieceByPiece(puzzle) ?? given
  const steps: { stage: number; step: RouteStep }[] = []
  let state = from
  let frame = holdOf(puzzle, from) ?? 0
  let { saved } = solved.value
  const turns: Turn[] = []
  let held: readonly Turn[] = []
  let frameBefore = frame
  for (const { step, standing, left, turns: made } of joined(puzzle, solved.value.steps)) {
    turns.push(...made)
    saved += 2 * left.length
    if (held.length === 0) frameBefore = frame
    const before = { puzzle, scheme, state, frame, standing }
    for (const turn of made) {
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      if (turn.whole) frame = multiply(turn.rotation, frame)
    }
    // A hold is taken at the beginning of the step that follows.
    if (step.kind === 'hold') {
      held = made
      continue
    }
    const stage = stageFor(school, step)
    const id = `${school.stages[stage].id}.${steps.filter((each) => each.stage === stage).length + 1}`
    const after = { puzzle, scheme, state, frame, standing: left }
    const isFirst = steps.every((each) => each.stage !== stage)
    const explained = explain(before, step, after, id, held, isFirst)
    steps.push({ stage, step: { ...explained, frame: frameBefore } })
    held = []
  }
  const stages = school.stages.map((stage, at): RouteStage => {
    const own = steps.filter((each) => each.stage === at).map(({ step }) => step)
    return { id: stage.id, name: stage.name, aim: stage.aim, done: own.length === 0, steps: own }
  })
  const algorithms = steps.map(({ step }) => step.algorithm.join(' ')).filter(Boolean)
  const route = {
    puzzle: puzzle.definition.id,
    school: school.id,
    variant: {},
    from: writeState(from),
    base: 'up',
    baseColour: '',
    stages,
    algorithms: [...new Set(algorithms)],
    looks: steps.length,
    saved,
    orbitPlan: knownPlanOf(puzzle),
  }
  return ok(withMeetings(puzzle, route))
}

const stageFor = ({ stages }: School, step: UniversalStep): number =>
  stages.findIndex(({ technique }) =>
    step.kind === 'shape'
      ? technique.kind === 'shape'
      : step.kind === 'sums' || step.kind === 'hold'
        ? technique.kind === 'sums'
        : technique.kind === 'cycles' &&
          technique.orbit === (step.kind === 'cycle' ? step.orbit : step.orbits[0]),
  )
