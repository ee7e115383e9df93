/**
 * Orbits without three-cycles, whose pieces are permuted by a small group of their own: all placements
 * that turns reach are listed, with the shortest way home. Smaller orbits come first; later ones are
 * solved by turns that leave what the eye sees of the earlier ones alone.
 */
import { frameOf } from '../analysis/frame'
import type { Puzzle, Turn } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import type { State } from '../state'
import { effectOfTurn, type Effect } from './effects'

/** More placements than this are not listed. */
const LIMIT = 120_000

export interface SmallOrbit {
  readonly places: readonly number[]
  /** The shortest turns that bring the orbit's pieces home as the eye sees it; undefined if none do. */
  readonly route: (state: State) => Turn[] | undefined
}

/** Undefined if some orbit is too large to list. */
export function smallOrbits(
  puzzle: Puzzle,
  orbits: readonly (readonly number[])[],
): SmallOrbit[] | undefined {
  const { turns } = frameOf(puzzle)
  const effects = new Map(turns.map((turn) => [turn, effectOfTurn(puzzle, turn)]))
  const done: number[] = []
  const found: SmallOrbit[] = []
  for (const places of [...orbits].sort((a, b) => a.length - b.length)) {
    const own = turns.filter((turn) => {
      const effect = effects.get(turn) as Effect
      const leavesDone = done.every((q) => isUnseen(puzzle, q, effect[q]))
      return leavesDone && places.some((q) => effect[q] !== 0)
    })
    const table = listPlacements(puzzle, places, own, effects)
    if (!table) return undefined
    found.push({ places, route: table })
    done.push(...places)
  }
  return found
}

const isUnseen = (puzzle: Puzzle, place: number, rotation: number): boolean =>
  puzzle.look[24 * place + rotation] === puzzle.look[24 * place]

function listPlacements(
  puzzle: Puzzle,
  places: readonly number[],
  turns: readonly Turn[],
  effects: ReadonlyMap<Turn, Effect>,
): SmallOrbit['route'] | undefined {
  // Breadth first from home, turns undone, so that each placement knows its first turn home.
  const home = Uint8Array.from(puzzle.pieces, () => 0)
  const key = (state: Uint8Array) => places.map((p) => puzzle.look[24 * p + state[p]]).join()
  const first = new Map<string, Turn | undefined>([[key(home), undefined]])
  let front: State[] = [home]
  while (front.length > 0) {
    const next: State[] = []
    for (const state of front)
      for (const turn of turns) {
        const effect = effects.get(turn) as Effect
        const moved = new Uint8Array(state)
        for (const p of places)
          moved[p] = PRODUCT[24 * effect[puzzle.place[24 * p + state[p]]] + state[p]]
        const at = key(moved)
        if (first.has(at)) continue
        if (first.size >= LIMIT) return undefined
        first.set(at, puzzle.turns[turn.inverse])
        next.push(moved)
      }
    front = next
  }
  return (state) => {
    const found: Turn[] = []
    const now = new Uint8Array(state)
    for (;;) {
      const at = key(now)
      if (!first.has(at)) return undefined
      const turn = first.get(at)
      if (!turn) return found
      const effect = effects.get(turn) as Effect
      for (const p of places) now[p] = PRODUCT[24 * effect[puzzle.place[24 * p + now[p]]] + now[p]]
      found.push(turn)
    }
  }
}
