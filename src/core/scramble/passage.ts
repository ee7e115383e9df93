/** In how many positions a sequence can be made where turns can be blocked, and in which shapes it stops. */
import { canBlock } from '../analysis/placements'
import { IN, NO_PLACE, type Puzzle, type Turn } from '../puzzle/compile'
import { ROTATION_COUNT } from '../rotation'
import { scramble, scrambledState } from './scramble'
import { blockOf, turnFreely, type State } from '../state'

/** What stops a sequence, with a position from which it does. */
export interface Stop {
  /** Before which turn, from 0. */
  readonly at: number
  readonly times: number
  /** Before the first turn. */
  readonly state: State
  /** Places of the start, as pieces whose homes they are, where something must lie and nothing does. */
  readonly missing: readonly number[]
  /** Pieces that the turn would cut. */
  readonly cut: readonly number[]
}

export interface Passage {
  readonly tried: number
  readonly made: number
  /** What stops it oftenest first. */
  readonly stops: readonly Stop[]
}

/** Over scrambles with the seeds from 0 on; undefined on a puzzle that nothing blocks. */
export function passageOf(
  puzzle: Puzzle,
  turns: readonly Turn[],
  tried: number,
): Passage | undefined {
  if (!canBlock(puzzle)) return undefined
  const stops = new Map<string, Stop>()
  let made = 0
  for (let n = 0; n < tried; n++) {
    const state = scrambledState(puzzle, scramble(puzzle, n))
    const stop = stopOf(puzzle, turns, state)
    if (!stop) {
      made++
      continue
    }
    // A layer that is not complete lacks now this, now that: where it lacks least is the plainest to see.
    const key = [stop.at, stop.cut.join()].join('|')
    const known = stops.get(key) ?? { ...stop, times: 0 }
    const plainest = stop.missing.length < known.missing.length ? stop : known
    stops.set(key, { ...plainest, times: known.times + 1 })
  }
  return { tried, made, stops: [...stops.values()].sort((a, b) => b.times - a.times) }
}

function stopOf(puzzle: Puzzle, turns: readonly Turn[], from: State): Stop | undefined {
  let state = from
  for (const [at, turn] of turns.entries()) {
    const block = blockOf(puzzle, state, turn)
    if (!block) {
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      continue
    }
    const made = turns.slice(0, at)
    return {
      at,
      times: 1,
      state: from,
      missing:
        block.kind === 'incomplete'
          ? block.places
              .flatMap((place) => cameFrom(puzzle, made, place) ?? [])
              .sort((a, b) => a - b)
          : [],
      cut: block.kind === 'cuts' ? block.pieces : [],
    }
  }
  return undefined
}

/**
 * The place whose content lies in a place after some turns: a turn of a layer takes all that is in it along. Undefined
 * where that is none of the finished puzzle.
 */
function cameFrom(puzzle: Puzzle, turns: readonly Turn[], place: number): number | undefined {
  return turns.reduceRight<number | undefined>((at, turn) => {
    if (at === undefined || puzzle.carry[turn.grip][ROTATION_COUNT * at] !== IN) return at
    const { rotation } = puzzle.turns[turn.inverse]
    const before = puzzle.place[ROTATION_COUNT * at + rotation]
    return before === NO_PLACE ? undefined : before
  }, place)
}
