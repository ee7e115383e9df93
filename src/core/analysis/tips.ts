/**
 * Tips: pieces that some turn turns alone in their places, and that all other turns take along with
 * another piece that stays in its place too. How far a tip lies off its neighbour changes by its own
 * turns only, so tips are left out of tables and put right at the end.
 */
import { IN, type Puzzle, type Turn } from '../puzzle/compile'
import { INVERSE, multiply, type Rotation } from '../rotation'
import type { State } from '../state'
import { frameOf } from './frame'
import { orbitsOf, type Orbit } from './orbits'

export interface Tip {
  readonly piece: number
  /** The piece that it is turned along with. */
  readonly neighbour: number
  readonly turns: readonly Turn[]
}

const known = new WeakMap<Puzzle, readonly Tip[]>()

export function tipsOf(puzzle: Puzzle): readonly Tip[] {
  const found = known.get(puzzle)
  if (found) return found
  const single = orbitsOf(puzzle)
    .filter(({ places }) => places.length === 1)
    .map(({ places: [piece] }) => piece)
  const { turns } = frameOf(puzzle)
  const carries = ({ grip }: Turn, p: number) => puzzle.carry[grip][24 * p] === IN
  const tips = single.flatMap((piece): Tip[] => {
    const isOwn = (turn: Turn) =>
      carries(turn, piece) && puzzle.pieces.every((_, p) => p === piece || !carries(turn, p))
    const own = turns.filter(isOwn)
    const others = turns.filter((turn) => !isOwn(turn))
    const neighbour = single.find(
      (p) => p !== piece && others.every((turn) => carries(turn, p) === carries(turn, piece)),
    )
    return own.length > 0 && neighbour !== undefined ? [{ piece, neighbour, turns: own }] : []
  })
  known.set(puzzle, tips)
  return tips
}

/** The orbits that are left without the tips. */
export const orbitsWithoutTips = (puzzle: Puzzle): Orbit[] =>
  orbitsOf(puzzle).filter(
    ({ places }) => !tipsOf(puzzle).some(({ piece }) => places.length === 1 && places[0] === piece),
  )

/** The turn of each tip that brings it in line with its neighbour, for those that are not. */
export function tipTurns(puzzle: Puzzle, state: State): Turn[] {
  return tipsOf(puzzle).flatMap(({ piece, neighbour, turns }) => {
    // Both turn about one axis, so the order does not matter.
    const off: Rotation = multiply(state[neighbour], INVERSE[state[piece]])
    const turn = turns.find(({ rotation }) => rotation === off)
    return turn ? [turn] : []
  })
}
