/** Whether a school is for a puzzle: asked of what the puzzle is, so that a dropped file is served too. */
import type { PuzzleDefinition } from '../puzzle/definition'
import { directionOfName, opposite } from '../puzzle/directions'
import { endsOf } from './ends'
import type { School } from './school'

/** With blocks a puzzle does other things than its mechanism alone; in a solid it shows others. */
export function fits({ fits: fit }: School, definition: PuzzleDefinition): boolean {
  const { mechanism, solid, glue } = definition
  if (fit.mechanism === 'any') return true
  if (glue.length > 0 || mechanism.kind !== fit.mechanism) return false
  const inSolids = 'inSolids' in fit && fit.inSolids
  if (solid === undefined ? inSolids === 'only' : !inSolids) return false
  if (fit.mechanism === 'conjoined')
    return (
      mechanism.kind === 'conjoined' &&
      mechanism.boxes.length === fit.count &&
      mechanism.boxes.every(({ size }) => isOfSize(size, fit)) &&
      axesBetween(mechanism.boxes[0].centre, mechanism.boxes[1].centre) === 2
    )
  if ('pairs' in fit) {
    const [least, most] = fit.pairs
    const caps = mechanism.kind === 'capped' ? mechanism.caps.map(directionOfName) : []
    const isPaired = caps.every((side) => caps.includes(opposite(side)))
    return isPaired && caps.length >= 2 * least && caps.length <= 2 * most
  }
  if ('ends' in fit) {
    const ends = endsOf(definition)
    const [least, most] = fit.length
    if (ends?.width !== fit.ends || (fit.withBelt && ends.length % 2 === 0)) return false
    return ends.length >= least && ends.length <= most
  }
  return fit.mechanism !== 'box' || (mechanism.kind === 'box' && isOfSize(mechanism.size, fit))
}

const axesBetween = (a: readonly number[], b: readonly number[]): number =>
  a.filter((coordinate, axis) => coordinate !== b[axis]).length

const isOfSize = (size: readonly number[], fit: { readonly size: readonly number[] }): boolean =>
  size.every((n, i) => n === fit.size[i])

/** What derived data is kept under: the mechanism, whatever the puzzle is called. */
export function mechanismKey({ mechanism }: PuzzleDefinition): string {
  return mechanism.kind === 'box' ? `box-${mechanism.size.join('x')}` : mechanism.kind
}
