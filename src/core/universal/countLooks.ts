/**
 * In how many ways moves can leave some places, as the eye sees it: the moves permute the looks that pieces
 * have in places, and the count is the orbit of the looks at home, read off a stabiliser chain that keeps
 * these one by one. Where equal pieces can stand for each other the eye sees fewer.
 */
import { PermutationGroup } from '../analysis/permutationGroup'
import type { Puzzle } from '../puzzle/compile'
import { PRODUCT } from '../rotation'
import type { Effect } from './effects'

/**
 * @param places whole orbits
 * @returns the count as if all pieces could be told apart; not proven, and so rarely too small
 */
export function countLooks(
  puzzle: Puzzle,
  places: readonly number[],
  effects: readonly Effect[],
): bigint {
  const points = new Map<number, number>()
  /** A placement for each point: `24 * piece + rotation`. */
  const reached: number[] = []
  const add = (placement: number) => {
    const look = puzzle.look[placement]
    if (points.has(look)) return
    points.set(look, points.size)
    reached.push(placement)
  }
  places.forEach((p) => add(24 * p))
  const after = (placement: number, effect: Effect) => {
    const [p, r] = [Math.floor(placement / 24), placement % 24]
    return 24 * p + PRODUCT[24 * effect[puzzle.place[placement]] + r]
  }
  for (const placement of reached) for (const effect of effects) add(after(placement, effect))
  const generators = effects.map((effect) =>
    Uint16Array.from(
      reached,
      (placement) => points.get(puzzle.look[after(placement, effect)]) as number,
    ),
  )
  const group = new PermutationGroup(
    reached.length,
    generators,
    [...reached.keys()],
    undefined,
    false,
  )
  return group.order / group.orderFrom(places.length)
}
