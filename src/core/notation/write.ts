/** Writes turns and algorithms in a dialect. */
import type { Turn } from '../puzzle/compile'
import { CANONICAL, dialectOf, type DialectId } from './dialect'
import type { Algorithm, Node } from './tree'

/** One turn by its canonical name, in a dialect. */
export const writeTurnName = (name: string, dialect: DialectId = CANONICAL): string =>
  name.endsWith("'") ? name.slice(0, -1) + dialectOf(dialect).back : name

export const writeTurns = (turns: readonly Turn[], dialect: DialectId = CANONICAL): string =>
  turns.map((turn) => writeTurnName(turn.name, dialect)).join(' ')

export const writeAlgorithm = (algorithm: Algorithm, dialect: DialectId = CANONICAL): string =>
  algorithm.map((node) => writeNode(node, dialect)).join(' ')

function writeNode(node: Node, dialect: DialectId): string {
  const write = (part: Algorithm) => writeAlgorithm(part, dialect)
  switch (node.kind) {
    case 'turn':
      return writeTurnName(node.turn.name, dialect)
    case 'group':
      return `(${write(node.body)})${node.times === 1 ? '' : node.times}${node.inverse ? dialectOf(dialect).back : ''}`
    case 'conjugate':
      return `[${write(node.setup)}: ${write(node.body)}]`
    case 'commutator':
      return `[${write(node.first)}, ${write(node.second)}]`
  }
}
