/**
 * Where two steps of one orbit begin with the same set-up turns, these are left standing between them
 * instead of being undone and made again.
 */
import type { Puzzle, Turn } from '../puzzle/compile'
import { isInShape } from '../scramble/scramble'
import { inverseOf, start, turnFreely } from '../state'
import { turnsOfStep, type UniversalStep } from './solve'

export interface JoinedStep {
  readonly step: UniversalStep
  /** Set-up turns of the step before that still stand when it begins. */
  readonly standing: readonly Turn[]
  /** Its own set-up turns that it leaves standing for the next. */
  readonly left: readonly Turn[]
  /** All its turns, in order. */
  readonly turns: readonly Turn[]
}

export function joined(puzzle: Puzzle, steps: readonly UniversalStep[]): JoinedStep[] {
  let standing: readonly Turn[] = []
  return steps.map((step, i): JoinedStep => {
    const left = sharedSetup(puzzle, step, steps[i + 1])
    const turns =
      step.kind === 'cycle'
        ? [
            ...step.cycle.setup.slice(standing.length),
            ...step.cycle.base.turns,
            ...inverseOf(puzzle, step.cycle.setup.slice(left.length)),
          ]
        : turnsOfStep(puzzle, step)
    const found = { step, standing, left, turns }
    standing = left
    return found
  })
}

/**
 * The first set-up turns that a step has in common with the next of its orbit. They end in shape: a loop
 * stands as a whole or not at all, so that every piece lies in a place that has a name.
 */
function sharedSetup(
  puzzle: Puzzle,
  step: UniversalStep,
  next: UniversalStep | undefined,
): readonly Turn[] {
  if (step.kind !== 'cycle' || next?.kind !== 'cycle' || next.orbit !== step.orbit) return []
  const { setup } = step.cycle
  const differs = setup.findIndex((turn, i) => turn !== next.cycle.setup[i])
  const shared = setup.slice(0, differs < 0 ? setup.length : differs)
  let state = start(puzzle)
  let inShape = 0
  for (const [at, turn] of shared.entries()) {
    state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
    if (isInShape(puzzle, state)) inShape = at + 1
  }
  return shared.slice(0, inShape)
}
