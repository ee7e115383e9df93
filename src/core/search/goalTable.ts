/**
 * Distances to a goal that concerns a few tracked pieces only: a breadth-first search backward from
 * every accepted placement of those pieces, whatever the others do. One byte a combination of
 * rotations, addressed by the sum of rotation_i * 24^i; 255 where no turns lead.
 */
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { PRODUCT, ROTATION_COUNT, type Rotation } from '../rotation'
import type { State } from '../state'

export interface GoalTable {
  readonly tracked: readonly number[]
  readonly turns: readonly Turn[]
  readonly distances: Uint8Array
  readonly maximum: number
}

/** Most pieces that one table tracks: 24^5 bytes are 8 MB. */
export const TRACKED_LIMIT = 5

const UNREACHED = 255
/** In `Puzzle.place`: a rotation that brings the piece to no home. */
const NO_PLACE = 255

/** @param accept whether the tracked pieces, with these rotations, meet the goal. */
export function buildGoalTable(
  puzzle: Puzzle,
  tracked: readonly number[],
  turns: readonly Turn[],
  accept: (rotations: readonly Rotation[]) => boolean,
): GoalTable {
  const n = tracked.length
  if (n > TRACKED_LIMIT) throw new Error(`a goal table tracks at most ${TRACKED_LIMIT} pieces`)
  const size = ROTATION_COUNT ** n
  const distances = new Uint8Array(size).fill(UNREACHED)
  const weights = tracked.map((_, i) => ROTATION_COUNT ** i)
  let frontier: number[] = []
  const rotations = new Array<Rotation>(n).fill(0)
  const isFilled = new Uint8Array(256)
  const place = (i: number, index: number) => {
    if (i === n) {
      if (!accept(rotations)) return
      distances[index] = 0
      frontier.push(index)
      return
    }
    for (let r = 0; r < ROTATION_COUNT; r++) {
      const at = puzzle.place[24 * tracked[i] + r]
      if (at === NO_PLACE || isFilled[at]) continue
      isFilled[at] = 1
      rotations[i] = r
      place(i + 1, index + r * weights[i])
      isFilled[at] = 0
    }
  }
  place(0, 0)
  // Turns are closed under inverse, so searching forward from the goal finds the way back.
  const tables = turns.map((turn) =>
    tracked.map((piece, i) => nextRotations(puzzle, turn, piece).map((r) => r * weights[i])),
  )
  const digits = new Uint8Array(n)
  let distance = 0
  while (frontier.length > 0) {
    distance++
    const next: number[] = []
    for (const index of frontier) {
      for (let i = 0, rest = index; i < n; i++, rest = (rest / ROTATION_COUNT) | 0)
        digits[i] = rest % ROTATION_COUNT
      for (const table of tables) {
        let reached = 0
        for (let i = 0; i < n; i++) reached += table[i][digits[i]]
        if (distances[reached] !== UNREACHED) continue
        distances[reached] = distance
        next.push(reached)
      }
    }
    frontier = next
  }
  return { tracked, turns, distances, maximum: distance - 1 }
}

function nextRotations(puzzle: Puzzle, turn: Turn, piece: number): Uint32Array {
  return Uint32Array.from({ length: ROTATION_COUNT }, (_, r) =>
    puzzle.carry[turn.grip][24 * piece + r] === IN ? PRODUCT[24 * turn.rotation + r] : r,
  )
}

/** The least number of turns that meets the goal. */
export function goalDistance(table: GoalTable, state: State): number {
  let index = 0
  for (let i = table.tracked.length - 1; i >= 0; i--)
    index = index * ROTATION_COUNT + state[table.tracked[i]]
  return table.distances[index]
}
