/** The ways to do one of some sequences: from a hold about the base axis, after a turn of a layer. */
import { join, repeated, sequence, type Sequence } from '../../notation/sequence'
import { held, layerTurns, spins, type StageContext } from '../workpiece'

export interface Way {
  readonly spin: Sequence
  readonly fetch: Sequence
  readonly sequence: Sequence
  readonly runs: number
  /** All of it, one after another. */
  readonly whole: Sequence
  readonly cost: number
}

/** The easiest in the hand first; up to so many runs of each sequence. */
export function waysOf(
  { puzzle, stage, hand }: Pick<StageContext, 'puzzle' | 'stage' | 'hand'>,
  fetch: string,
  sequences: readonly string[],
  runs = 1,
): Way[] {
  return spins(puzzle, held(stage).base)
    .flatMap((spin) =>
      layerTurns(puzzle, fetch).flatMap((turn) =>
        sequences.flatMap((text) =>
          Array.from({ length: runs }, (_, i): Way => {
            const own = sequence(puzzle, text)
            const whole = join(puzzle, spin, turn, repeated(puzzle, own, i + 1))
            return { spin, fetch: turn, sequence: own, runs: i + 1, whole, cost: whole.costs[hand] }
          }),
        ),
      ),
    )
    .sort((a, b) => a.cost - b.cost)
}
