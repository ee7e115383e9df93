/**
 * The circles of a circle cube: which turns pass them by, and the order in which they are done.
 */
import { DIRECTIONS, opposite, type Direction } from '../puzzle/directions'
import type { Puzzle } from '../puzzle/compile'

/** Whether a turn of that side takes its circle along. */
export function isLocked({ definition: { mechanism } }: Puzzle, { name }: Direction): boolean {
  return mechanism.kind === 'circles' && mechanism.locked.includes(name)
}

/**
 * The sides by the order of their circles; none where there are no circles. A free circle lies still while its own
 * side turns, so it comes first; that across from it is the last one, and best locked, since its own turns bring each
 * of its places to where it is filled. Between them a locked one is filled while most is free, then the free ones; the
 * other locked ones keep a way of turning to the end.
 */
export function circlesInOrder(puzzle: Puzzle): readonly Direction[] {
  if (puzzle.definition.mechanism.kind !== 'circles') return []
  const rank = (side: Direction) =>
    (isLocked(puzzle, side) ? 2 : 0) + (isLocked(puzzle, opposite(side)) ? 0 : 1)
  const [first] = [...DIRECTIONS].sort((a, b) => rank(a) - rank(b))
  const between = DIRECTIONS.filter((side) => side !== first && side !== opposite(first)).reverse()
  const locked = between.filter((side) => isLocked(puzzle, side))
  const free = between.filter((side) => !isLocked(puzzle, side))
  // The one that is filled early is the one farthest from the eye.
  const early = locked.find(({ letter }) => letter === 'B') ?? locked[0]
  return [
    first,
    ...(early ? [early] : []),
    ...free,
    ...locked.filter((side) => side !== early),
    opposite(first),
  ]
}
