/**
 * Single faults made by hand on a state, for trying the diagnosis: a piece turned in its place, two
 * exchanged, two equal ones exchanged, two of different kinds put where they fit.
 */
import { unseenChanges } from '../analysis/lookAlikes'
import type { Puzzle } from '../puzzle/compile'
import type { Random } from '../random'
import { multiply, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'

export const FAULTS = ['turned', 'exchanged', 'equals exchanged', 'kinds mixed'] as const
export type Fault = (typeof FAULTS)[number]

/** The state with one fault, at random; undefined if the puzzle has no such fault. */
export function withFault(
  puzzle: Puzzle,
  state: State,
  fault: Fault,
  random: Random,
): State | undefined {
  const options = optionsFor(puzzle, state, fault)
  return options.length === 0 ? undefined : options[random.below(options.length)]()
}

const ROTATIONS = Array.from({ length: ROTATION_COUNT }, (_, r): Rotation => r)

function optionsFor(puzzle: Puzzle, state: State, fault: Fault): (() => State)[] {
  const { pieces, slot } = puzzle
  if (fault === 'equals exchanged')
    return unseenChanges(puzzle).map(
      ({ make }) =>
        () =>
          make(state),
    )
  if (fault === 'turned')
    return pieces.flatMap((_, p) =>
      ROTATIONS.filter(
        (r) => r !== 0 && slot[24 * p + multiply(r, state[p])] === slot[24 * p + state[p]],
      ).map((r) => () => {
        const next = new Uint8Array(state)
        next[p] = multiply(r, state[p])
        return next
      }),
    )
  const fitting = (p: number, q: number) =>
    ROTATIONS.filter((r) => slot[24 * p + r] === slot[24 * q + state[q]])
  return pieces.flatMap((_, p) =>
    pieces.slice(p + 1).flatMap((__, i): (() => State)[] => {
      const q = p + 1 + i
      const isMixed = pieces[p].kind !== pieces[q].kind
      if (isMixed !== (fault === 'kinds mixed')) return []
      return fitting(p, q).flatMap((there) =>
        fitting(q, p)
          .slice(0, 1)
          .map((back) => () => {
            const next = new Uint8Array(state)
            next[p] = there
            next[q] = back
            return next
          }),
      )
    }),
  )
}

/** Two pieces put into each other's places by hand, each as it first fits there. */
export function exchanged(puzzle: Puzzle, state: State, p: number, q: number): State {
  const next = new Uint8Array(state)
  const into = (piece: number, slot: number) => {
    const found = ROTATIONS.find((r) => puzzle.slot[24 * piece + r] === slot)
    if (found === undefined) throw new Error('it does not fit there')
    return found
  }
  next[p] = into(p, puzzle.slot[24 * q + state[q]])
  next[q] = into(q, puzzle.slot[24 * p + state[p]])
  return next
}
