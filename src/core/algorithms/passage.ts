/** In how many positions a sequence can be made where turns can be blocked, and where it stops in the others. */
import { canBlock } from '../analysis/placements'
import type { Puzzle, Turn } from '../puzzle/compile'
import { scramble, scrambledState } from '../scramble/scramble'
import { blockOf, turnFreely } from '../state'

export interface Passage {
  readonly tried: number
  readonly made: number
  /** How often it stopped before each turn. */
  readonly stops: readonly number[]
}

/** Over scrambles with the seeds from 0 on; undefined on a puzzle that nothing blocks. */
export function passageOf(
  puzzle: Puzzle,
  turns: readonly Turn[],
  tried: number,
): Passage | undefined {
  if (!canBlock(puzzle)) return undefined
  const stops = turns.map(() => 0)
  let made = 0
  for (let n = 0; n < tried; n++) {
    let state = scrambledState(puzzle, scramble(puzzle, n))
    const at = turns.findIndex((turn) => {
      if (blockOf(puzzle, state, turn)) return true
      state = turnFreely(puzzle, state, turn, new Uint8Array(state.length))
      return false
    })
    if (at < 0) made++
    else stops[at]++
  }
  return { tried, made, stops }
}

/** 'Tried from 200 scrambles it can be made in 37; most often it stops at turn 3, R.' */
export function passageWords(
  turns: readonly Turn[],
  { tried, made, stops }: Passage,
  write: (name: string) => string = (name) => name,
): string {
  const from = `Tried from ${tried} scrambles, it can be made in`
  if (made === tried) return `${from} all.`
  const most = stops.indexOf(Math.max(...stops))
  return `${from} ${made === 0 ? 'none' : made}; most often it stops at turn ${most + 1}, ${write(turns[most].name)}.`
}
