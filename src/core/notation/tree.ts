/** The parsed form of an algorithm: turns, groups, conjugates and commutators. */
import type { Puzzle, Turn } from '../puzzle/compile'
import { inverseOf } from '../state'

export type Node =
  | { readonly kind: 'turn'; readonly turn: Turn }
  /** `(…)3`, `(…)'`; once and forward when it is a plain group. */
  | {
      readonly kind: 'group'
      readonly body: Algorithm
      readonly times: number
      readonly inverse: boolean
    }
  /** `[S: A]` = S A S' */
  | { readonly kind: 'conjugate'; readonly setup: Algorithm; readonly body: Algorithm }
  /** `[A, B]` = A B A' B' */
  | { readonly kind: 'commutator'; readonly first: Algorithm; readonly second: Algorithm }

export type Algorithm = readonly Node[]

/** All turns in the order in which they are done. */
export function expand(puzzle: Puzzle, algorithm: Algorithm): Turn[] {
  return algorithm.flatMap((node) => {
    switch (node.kind) {
      case 'turn':
        return [node.turn]
      case 'group': {
        const once = expand(puzzle, node.body)
        const directed = node.inverse ? inverseOf(puzzle, once) : once
        return Array.from({ length: node.times }, () => directed).flat()
      }
      case 'conjugate': {
        const setup = expand(puzzle, node.setup)
        return [...setup, ...expand(puzzle, node.body), ...inverseOf(puzzle, setup)]
      }
      case 'commutator': {
        const first = expand(puzzle, node.first)
        const second = expand(puzzle, node.second)
        return [...first, ...second, ...inverseOf(puzzle, first), ...inverseOf(puzzle, second)]
      }
    }
  })
}

/** How many turns `expand` would give, without making them. */
export function expandedLength(algorithm: Algorithm): number {
  return algorithm.reduce((sum, node) => {
    switch (node.kind) {
      case 'turn':
        return sum + 1
      case 'group':
        return sum + node.times * expandedLength(node.body)
      case 'conjugate':
        return sum + 2 * expandedLength(node.setup) + expandedLength(node.body)
      case 'commutator':
        return sum + 2 * (expandedLength(node.first) + expandedLength(node.second))
    }
  }, 0)
}
